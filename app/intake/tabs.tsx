import { NavLink } from "react-router";

const TABS = [
  ["", "Job"],
  ["book-in", "Book in"],
  ["symptoms", "Symptoms"],
  ["before", "Before opening"],
  ["fault", "At fault?"],
  ["teardown", "Tear down"],
  ["bench", "Bench"],
  ["inspect", "Inspect"],
  ["measure", "Measure"],
  ["cause", "Cause"],
  ["photos", "Photos"],
  ["labels", "Labels"],
] as const;

/** The places of a job in the order of its stages; the packs are reached by the axis. */
export const JobTabs = ({ number }: { number: number }) => (
  <nav aria-label="Stages of the job" className="no-print mb-2 flex flex-wrap gap-1 max-[1200px]:gap-0">
    {TABS.map(([path, words]) => (
      <NavLink
        key={path}
        to={`/jobs/${number}${path && `/${path}`}`}
        end
        className={({ isActive }) =>
          `touch flex items-center border-b-3 px-3 font-semibold max-[1200px]:px-2 ${isActive ? "border-primary" : "border-transparent"}`
        }
      >
        {words}
      </NavLink>
    ))}
  </nav>
);
