import { useCallback } from "react";
import { axisIn, Chart } from "~/look/chart";
import type { LengthUnit } from "~core/quantity";
import { pressureIn, pressureUnit, torqueIn } from "./figures";

/** What a pack holds at one pressure with so many plates. */
export interface Curve {
  name: string;
  /** Pascals and N·m. */
  points: readonly (readonly [number, number])[];
  isPlanned: boolean;
}

/** Torque against pressure, a line for each stack; across it what must be carried, and what there should be over. */
export default function CapacityChart({
  curves,
  must,
  wanted,
  unit,
}: {
  curves: readonly Curve[];
  must: number;
  wanted: number;
  unit: LengthUnit;
}) {
  const option = useCallback(
    (ink: string) => {
      const ends = curves.flatMap(({ points }) => [points[0]?.[0] ?? 0, points.at(-1)?.[0] ?? 0]);
      const [from, to] = [Math.min(...ends), Math.max(...ends)];
      const across = (torque: number, name: string, dashed: boolean) => ({
        type: "line" as const,
        symbol: "circle",
        symbolSize: 1,
        lineStyle: { color: ink, width: 1.5, type: dashed ? ("dashed" as const) : ("solid" as const) },
        label: {
          show: true,
          position: "right" as const,
          offset: [2, dashed ? -9 : 10],
          color: ink,
          formatter: ({ dataIndex }: { dataIndex: number }) => (dataIndex === 0 ? name : ""),
        },
        data: [
          [pressureIn(from, unit), torqueIn(torque, unit)],
          [pressureIn(to, unit), torqueIn(torque, unit)],
        ],
      });
      return {
        grid: { left: 52, right: 84, top: 12, bottom: 38 },
        xAxis: {
          ...axisIn(ink),
          max: pressureIn(to, unit),
          axisLabel: { color: ink, showMaxLabel: false },
          name: pressureUnit(unit),
          nameLocation: "middle",
          nameGap: 24,
        },
        yAxis: { ...axisIn(ink), scale: false },
        series: [
          ...curves.map(({ name, points, isPlanned }) => ({
            type: "line" as const,
            symbol: "none",
            lineStyle: { color: ink, width: isPlanned ? 4 : 1.5, opacity: isPlanned ? 1 : 0.55 },
            endLabel: { show: true, formatter: `${name} frictions`, color: ink },
            data: points.map(([pressure, torque]) => [pressureIn(pressure, unit), torqueIn(torque, unit)]),
          })),
          across(must, "must", false),
          across(must * wanted, "should", true),
        ],
      };
    },
    [curves, must, wanted, unit],
  );
  return (
    <Chart
      height={170}
      label={`Torque against pressure for ${curves.map(({ name }) => name).join(", ")}`}
      option={option}
      data={{ "data-capacity-chart": curves.length }}
    />
  );
}
