import { index, layout, prefix, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  layout("routes/shell.tsx", [
    index("routes/tonight.tsx"),
    ...prefix("targets", [
      index("routes/targets.tsx"),
      route("own/:ownId", "routes/own-target.tsx"),
      route(":targetId", "routes/target.tsx"),
      route(":targetId/finder", "routes/finder.tsx"),
    ]),
    ...prefix("projects", [
      index("routes/projects.tsx"),
      route(":projectId", "routes/project.tsx", [
        index("routes/project-index.tsx"),
        route("frame", "routes/frame.tsx"),
        route("budget", "routes/budget.tsx"),
        route("plan", "routes/plan.tsx"),
        route("log", "routes/project-log.tsx"),
        route("crew", "routes/crew.tsx"),
      ]),
    ]),
    route("nights", "routes/nights.tsx"),
    route("log", "routes/log.tsx"),
    route("kit", "routes/kit.tsx", [
      index("routes/kit-places.tsx"),
      route("places/:placeId", "routes/kit-place.tsx"),
      route("rigs", "routes/kit-rigs.tsx"),
      route("filters", "routes/kit-filters.tsx"),
      route("rigs/:rigId", "routes/kit-rig.tsx"),
      route("data", "routes/kit-data.tsx"),
      route("sources", "routes/kit-sources.tsx"),
    ]),
    route("records", "routes/records.tsx"),
  ]),
  route("services/forecast/:sourceId", "routes/forecast-service.ts"),
] satisfies RouteConfig;
