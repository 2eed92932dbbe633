import { index, layout, prefix, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  layout("screens/shell/route.tsx", [
    index("screens/tonight/route.tsx"),
    route("start", "screens/start/route.tsx"),
    ...prefix("targets", [
      index("screens/targets/route.tsx"),
      route("own/:ownId", "screens/own-target/route.tsx"),
      route(":targetId", "screens/target/route.tsx"),
      route(":targetId/finder", "screens/finder/route.tsx"),
    ]),
    ...prefix("projects", [
      index("screens/projects/route.tsx"),
      route(":projectId", "screens/project/route.tsx", [
        index("screens/project/index-route.tsx"),
        route("frame", "screens/frame/route.tsx"),
        route("budget", "screens/budget/route.tsx"),
        route("plan", "screens/plan/route.tsx"),
        route("log", "screens/log/project-route.tsx"),
        route("crew", "screens/crew/route.tsx"),
        route("record", "screens/record/route.tsx"),
      ]),
    ]),
    route("season", "screens/season/route.tsx"),
    route("nights", "screens/nights/route.tsx"),
    route("nights/live", "screens/live/route.tsx"),
    route("nights/rehearsal", "screens/rehearsal/route.tsx"),
    route("log", "screens/log/route.tsx"),
    route("log/subs", "screens/subs/route.tsx"),
    route("log/nights", "screens/night-facts/route.tsx"),
    route("kit", "screens/kit/route.tsx", [
      index("screens/kit/places/route.tsx"),
      route("places/:placeId", "screens/kit/place/route.tsx"),
      route("rigs", "screens/kit/rigs/route.tsx"),
      route("filters", "screens/kit/filters/route.tsx"),
      route("rigs/:rigId", "screens/kit/rig/route.tsx"),
      route("rigs/:rigId/checklist", "screens/kit/checklist/route.tsx"),
      route("rules", "screens/kit/rules/route.tsx"),
      route("data", "screens/kit/data/route.tsx"),
      route("glossary", "screens/kit/glossary/route.tsx"),
      route("sources", "screens/kit/sources/route.tsx"),
    ]),
    route("acts", "screens/shell/acts-route.tsx"),
    route("*", "screens/shell/nowhere-route.tsx"),
  ]),
  route("services/forecast/:sourceId", "server/forecast-service.ts"),
  route("services/survey/:surveyId/*", "server/survey-service.ts"),
] satisfies RouteConfig;
