import { useCallback } from "react";
import { axisIn, Chart } from "~/look/chart";
import { moneyText } from "~core/quantity";
import type { ShelfValue } from "~store/restock";

const HEIGHT = 190;
const WIDEST = 130;

/** What lies on the shelf, in money, by how long nothing of it was wanted. */
export default function ValueChart({ since }: Pick<ShelfValue, "since">) {
  const option = useCallback(
    (ink: string) => ({
      grid: { left: WIDEST, right: 70, top: 6, bottom: 8 },
      xAxis: { ...axisIn(ink), axisLabel: { show: false }, min: 0 },
      yAxis: {
        ...axisIn(ink),
        type: "category",
        inverse: true,
        data: since.map(({ within }) => within),
      },
      series: [
        {
          type: "bar",
          barMaxWidth: 22,
          itemStyle: { color: ink },
          label: {
            show: true,
            position: "right",
            color: ink,
            formatter: ({ value }: { value: number }) => moneyText(value),
          },
          data: since.map(({ cents }) => cents),
        },
      ],
    }),
    [since],
  );
  return (
    <Chart
      height={HEIGHT}
      label={`Value by how long nothing was wanted: ${since.map(({ within, cents }) => `${within} ${moneyText(cents)}`).join(", ")}`}
      option={option}
      data={{ "data-value-chart": since.length }}
    />
  );
}
