import { Outlet, useSearchParams } from "react-router";
import { TabLinks } from "~/components/TabLinks";
import { keptSearch } from "~/desk/sky/choice";

const TABS = [
  { to: "/kit", word: "Places", also: "/kit/places" },
  { to: "/kit/rigs", word: "Rigs" },
  { to: "/kit/filters", word: "Filters" },
  { to: "/kit/rules", word: "Rules" },
  { to: "/kit/data", word: "Data in and out" },
  { to: "/kit/glossary", word: "Glossary" },
  { to: "/kit/sources", word: "Sources and licences" },
] as const;

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function KitRoute() {
  const [params] = useSearchParams();
  return (
    <>
      <TabLinks tabs={TABS} search={keptSearch(params)} label="Kit" />
      <Outlet />
    </>
  );
}
