/** What a page may load from where besides itself, as its Content-Security-Policy says it; `S` = a source that is made for each answer. */
export interface PageMay<S> {
  /** Nonces or sums of scripts that stand in the page. */
  readonly scripts: readonly S[];
  /** Nonces of style sheets that are put in while dialogs are open. */
  readonly styles: readonly S[];
  /** Origins that it asks. */
  readonly reaches: readonly string[];
}

/** The policy of every page, by directive, whoever serves it; what is a header's alone (who may frame it) is left to the server. */
export const pagePolicy = <S>({
  scripts,
  styles,
  reaches,
}: PageMay<S>): Readonly<Record<string, readonly (string | S)[]>> => ({
  "default-src": ["'none'"],
  "script-src": ["'self'", ...scripts],
  "style-src": ["'self'", ...styles],
  "style-src-attr": ["'unsafe-inline'"], // positions of drawings; no style sheet can come in this way
  "img-src": ["'self'", "data:", "blob:"],
  "font-src": ["'self'"],
  "connect-src": ["'self'", ...reaches],
  "worker-src": ["'self'"],
  "manifest-src": ["'self'"],
  "form-action": ["'self'"],
  "base-uri": ["'none'"],
  "object-src": ["'none'"],
});
