export {
  NM_PER,
  lengthOf,
  lengthText,
  nearestNm,
  nm,
  parseLength,
  plusMinusText,
  rangeText,
  roundedText,
  showLength,
  signedText,
  type LengthUnit,
  type Nm,
  type ParsedLength,
  type ShownLength,
} from "./length";
export { parsePressure, pressureText, type Pa, type ParsedPressure, type PressureUnit } from "./pressure";
