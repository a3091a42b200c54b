import { useCallback } from "react";
import { axisIn, Chart } from "~/look/chart";
import { moneyText } from "~core/quantity";

const HEIGHT = 132;

/** Price against days: each step down is a day sooner paid for. The one that is looked at is filled. */
export default function TradeChart({
  points,
  at,
  choose,
}: {
  points: readonly { cents: number; days: number }[];
  at: number;
  choose: (at: number) => void;
}) {
  const option = useCallback(
    (ink: string) => ({
      grid: { left: 52, right: 14, top: 10, bottom: 36 },
      xAxis: { ...axisIn(ink), name: "days", nameLocation: "middle", nameGap: 22, minInterval: 1 },
      yAxis: {
        ...axisIn(ink),
        axisLabel: { color: ink, formatter: (cents: number) => moneyText(cents).replace(/\.00$/, "") },
      },
      series: [
        {
          type: "line",
          step: "start",
          symbol: "circle",
          symbolSize: (_value: unknown, { dataIndex }: { dataIndex: number }) => (dataIndex === at ? 16 : 10),
          lineStyle: { color: ink, width: 1.5 },
          itemStyle: { color: ink },
          data: points.map(({ days, cents }) => [days, cents]),
        },
      ],
    }),
    [points, at],
  );
  return (
    <Chart
      height={HEIGHT}
      label={wordsOf(points)}
      option={option}
      onPick={choose}
      data={{ "data-trade-chart": points.length }}
    />
  );
}

const wordsOf = (points: readonly { cents: number; days: number }[]): string =>
  `Price against days: ${points.map(({ cents, days }) => `${moneyText(cents)} in ${days}`).join(", ")}`;
