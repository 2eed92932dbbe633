import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useDesk } from "~/at-desk";
import type { Backdrop, ChartAsked } from "~/drawing";
import { isShortcut, isTyping } from "~/components/shortcuts";
import { useTheme } from "~/components/use-theme";
import { surveyHere, surveyInk, theSurveyChoice, type SurveyChoice, type SurveyHere } from "~/desk/sky/surveys";

const ASK_AFTER_MS = 40; // while the chart is dragged the last picture is moved along
const USE = "frame";

/** The picture of the sky behind a frame's chart. */
export interface SurveyPicture {
  /** What can be shown, as far as it has answered. */
  readonly surveys: readonly SurveyHere[];
  readonly choice: SurveyChoice;
  readonly choose: (choice: SurveyChoice) => void;
  /** The chosen one, once it has said what it is. */
  readonly chosen: SurveyHere | null;
  readonly backdrop: Backdrop | null;
  readonly onView: ((chart: ChartAsked) => void) | undefined;
  /** Finer tiles are on their way. */
  readonly isComing: boolean;
  /** It could not be asked for all of it. */
  readonly isSilent: boolean;
  readonly again: () => void;
}

/** Asks the surveys what they are, and draws the chosen one behind the chart, coarse first and finer as it comes. */
export function useSurvey(): SurveyPicture {
  const desk = useDesk();
  const kept = desk.at(theSurveyChoice);
  const [choice, setChoice] = useState<SurveyChoice>(() => kept.read());
  const [surveys, setSurveys] = useState<readonly SurveyHere[]>([]);
  const [chart, setChart] = useState<ChartAsked | null>(null);
  const [backdrop, setBackdrop] = useState<(Backdrop & { readonly image: ImageBitmap; readonly of: string }) | null>(
    null,
  );
  const [settled, setSettled] = useState<{ readonly question: object; readonly isSilent: boolean } | null>(null);
  const [turn, again] = useState(0);
  const theme = useTheme();

  useEffect(() => {
    let isHere = true;
    void Promise.all(desk.surveys.map((id) => surveyHere(desk, id).catch(() => null))).then((all) => {
      if (isHere) setSurveys(all.filter((s) => s !== null));
    });
    return () => {
      isHere = false;
    };
  }, [desk, turn]);

  const chosen = surveys.find(({ id }) => id === choice.id) ?? null;
  const survey = chosen?.survey ?? null;
  const { id, brightness, contrast } = choice;
  /** What is wanted behind the chart now; another object whenever it is asked anew. */
  const question = useMemo(() => {
    if (!survey || !chart) return null;
    const ink = surveyInk(document.documentElement.dataset["theme"] ?? "");
    return { asked: { id, survey, chart, look: { brightness, contrast, ink } }, theme, turn };
  }, [id, survey, chart, brightness, contrast, theme, turn]);
  useEffect(() => {
    if (!question) return;
    let isCurrent = true;
    const { asked } = question;
    const settle = (isSilent: boolean) => {
      if (isCurrent) setSettled({ question, isSilent });
    };
    const timer = setTimeout(() => {
      desk.workers.survey
        .picture(USE, asked, ({ image }) => {
          if (isCurrent) setBackdrop({ image, chart: asked.chart, of: asked.id });
          else image.close();
        })
        .then(
          (done) => settle(!done.ok),
          () => settle(true),
        );
    }, ASK_AFTER_MS);
    return () => {
      isCurrent = false;
      clearTimeout(timer);
    };
  }, [desk, question]);
  useEffect(() => () => desk.workers.survey.stop(USE), [desk]);
  // A picture that another one took the place of is let go, once the chart has drawn the new one.
  const last = useRef<ImageBitmap | null>(null);
  useEffect(() => {
    const before = last.current;
    last.current = backdrop?.image ?? null;
    if (before && before !== last.current) requestAnimationFrame(() => requestAnimationFrame(() => before.close()));
  }, [backdrop]);

  const choose = useCallback(
    (next: SurveyChoice) => {
      kept.write(next);
      setChoice(next);
    },
    [kept],
  );
  // Off and on by one key: on is what was last looked at, else the first there is.
  const lastId = useRef("");
  useEffect(() => {
    if (choice.id !== "") lastId.current = choice.id;
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event) || !isShortcut(event, "picture")) return;
      const first = surveys.find((s) => s.survey)?.id ?? "";
      choose({ ...choice, id: choice.id === "" ? lastId.current || first : "" });
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, [choice, choose, surveys]);

  return {
    surveys,
    choice,
    choose,
    chosen,
    backdrop: survey && backdrop?.of === id ? backdrop : null,
    onView: desk.surveys.length > 0 ? setChart : undefined,
    isComing: question !== null && settled?.question !== question,
    isSilent: question !== null && settled?.question === question && settled.isSilent,
    again: () => again((t) => t + 1),
  };
}
