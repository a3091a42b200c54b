import type { LoaderFunctionArgs } from "react-router";
import { ground } from "~/server/context";

export const loader = ({ context }: LoaderFunctionArgs) => ({
  scanTool: context.get(ground).scanToolUrl !== "",
});
