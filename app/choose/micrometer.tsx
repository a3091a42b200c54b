import { Field } from "~/look/field";

/** What a micrometer says of a piece. */
export const Micrometer = ({
  label,
  value,
  onType,
  problem,
}: {
  label: string;
  value: string;
  onType: (text: string) => void;
  problem: string;
}) => (
  <Field
    label={label}
    value={value}
    onChange={(event) => onType(event.target.value)}
    inputMode="decimal"
    autoComplete="off"
    problem={problem}
  />
);
