import type { ReactNode } from "react";
import { Link } from "react-router";
import { useJobView } from "~/view/view";
import type { OtherVersion } from "~core/steps";

/** What was found fits another version: perhaps the unit is that one. Look, then correct the configuration. */
export function VersionHint({
  version: { trait, value },
  children,
}: {
  version: OtherVersion;
  children: ReactNode;
}) {
  const { book, number } = useJobView();
  const known = book.traits.find(({ id }) => id === trait)?.values[value];
  return (
    <p data-version-hint={`${trait} ${value}`}>
      {children} <b>{known?.name ?? value}</b> ({known?.tell}). Look, and{" "}
      <Link to={`/jobs/${number}#configuration`} className="underline underline-offset-4">
        correct the configuration
      </Link>{" "}
      if it is.
    </p>
  );
}
