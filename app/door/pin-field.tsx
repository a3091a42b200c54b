import { Field } from "~/look/field";
import { Pad } from "~/look/pad";

/** Where somebody proves who they are, with keys or with gloves. */
export function PinField({
  value,
  onChange,
  problem,
  hint,
}: {
  value: string;
  onChange: (pin: string) => void;
  problem?: string;
  hint?: string;
}) {
  return (
    <>
      <Field
        label="PIN or password"
        name="pin"
        type="password"
        inputMode="numeric"
        autoComplete="current-password"
        className="text-2xl"
        value={value}
        onChange={(event) => onChange(event.target.value)}
        problem={problem}
        hint={hint}
      />
      <Pad onKey={(key) => onChange(value + key)} onDelete={() => onChange(value.slice(0, -1))} />
    </>
  );
}
