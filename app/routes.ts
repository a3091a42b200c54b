import { index, layout, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  route("sign-in", "door/sign-in.tsx"),
  route("first-run", "door/first-run.tsx"),
  route("sign-out", "door/sign-out.ts"),
  route("gallery", "gallery/gallery.tsx"),
  layout("door/inside.tsx", [
    index("jobs/list.tsx"),
    route("jobs/new", "jobs/new.tsx"),
    route("jobs/import", "jobs/import.tsx"),
    route("jobs/:number", "job/job.tsx", [
      index("job/overview.tsx"),
      route("pack/:chain", "job/pack.tsx"),
      route("sheet", "job/sheet.tsx"),
    ]),
    route("jobs/:number/facts", "job/facts.ts"),
    route("jobs/:number/sheet.pdf", "job/sheet-pdf.ts"),
    route("jobs/:number/export.json", "job/export.ts"),
    route("shelf", "shelf/shelf.tsx"),
    route("house", "house/house.tsx"),
    route("gauge/stream", "gauge/stream.ts"),
    route("gauge/valve", "gauge/valve.ts"),
    route("empty", "server/empty.ts"),
  ]),
] satisfies RouteConfig;
