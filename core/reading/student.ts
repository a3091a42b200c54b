/**
 * Student's t distribution for any positive degrees of freedom, whole or not (Welch–Satterthwaite gives fractions).
 * P(|T| ≤ t) = 1 − I_x(ν/2, ½) with x = ν/(ν+t²) and I the regularised incomplete beta function (DLMF 8.17).
 */

/** P(T ≤ t) for `dof` degrees of freedom; `Infinity` is the normal distribution. Good to about 1e-7. */
export function studentCdf(t: number, dof: number): number {
  if (!(dof > 0)) throw new RangeError(`degrees of freedom must be positive, got ${dof}`);
  const tail = 0.5 * betaRegularised(dof === Infinity ? 1e7 : dof, t);
  return t > 0 ? 1 - tail : tail;
}

/** Half of the 5 % that lie outside on both sides. */
const UPPER = 0.975;
/** The factor for a normal distribution; for any finite degrees of freedom it is larger. */
const NORMAL = 1.959963984540054;

/**
 * The coverage factor k with P(|T| ≤ k) = 95 %; JCGM 100:2008 table G.2 lists it for whole degrees of freedom.
 *
 * Newton's method from the normal factor: the distribution function is concave there, so every step stays below the
 * solution and nears it; a dozen steps for one degree of freedom, three for ten. Bisection took ten times as long.
 */
export function coverageFactor(dof: number): number {
  if (dof === Infinity) return NORMAL;
  const scale = Math.exp(logGamma((dof + 1) / 2) - logGamma(dof / 2)) / Math.sqrt(dof * Math.PI);
  let k = NORMAL;
  for (let i = 0; i < 60; i++) {
    const density = scale * (1 + (k * k) / dof) ** (-(dof + 1) / 2);
    const step = (UPPER - studentCdf(k, dof)) / density;
    k += step;
    if (step < 1e-10 * k) break;
  }
  return k;
}

/** I_x(ν/2, ½) at x = ν/(ν+t²). */
function betaRegularised(dof: number, t: number): number {
  const a = dof / 2;
  const b = 0.5;
  const square = t * t;
  const x = dof / (dof + square);
  if (square === 0) return 1;
  const y = square / (dof + square);
  const front = Math.exp(-logBeta(a) + a * Math.log1p(-y) + b * Math.log(y));
  // The continued fraction converges fast on one side of the mean only; on the other use I_x(a,b) = 1 − I_{1−x}(b,a).
  return x < (a + 1) / (a + b + 2) ? (front * continued(x, a, b)) / a : 1 - (front * continued(y, b, a)) / b;
}

let known = { a: 0, value: 0 };
/** ln B(a, ½). The same is asked for again and again: of one figure after another the degrees of freedom are the same. */
function logBeta(a: number): number {
  if (known.a !== a) known = { a, value: logGamma(a) + logGamma(0.5) - logGamma(a + 0.5) };
  return known.value;
}

/** The continued fraction of DLMF 8.17.22, evaluated by the modified Lentz method. */
function continued(x: number, a: number, b: number): number {
  const tiny = 1e-300;
  const guard = (value: number): number => (Math.abs(value) < tiny ? tiny : value);
  let c = 1;
  let d = 1 / guard(1 - ((a + b) * x) / (a + 1));
  let result = d;
  for (let m = 1; m < 500; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / guard(1 + even * d);
    c = guard(1 + even / c);
    result *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / guard(1 + odd * d);
    c = guard(1 + odd / c);
    const step = d * c;
    result *= step;
    if (Math.abs(step - 1) < 1e-15) break;
  }
  return result;
}

const LANCZOS = [
  676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
  -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];

/** ln Γ(z), Lanczos' approximation with g = 7 and nine terms; relative error below 1e-14 for z > 0.5. */
function logGamma(z: number): number {
  // Lanczos loses digits by cancellation for large z; Stirling's series is exact enough there.
  if (z > 100)
    return (z - 0.5) * Math.log(z) - z + 0.5 * Math.log(2 * Math.PI) + 1 / (12 * z) - 1 / (360 * z ** 3);
  const base = z - 1 + 7.5;
  let sum = 0.99999999999980993;
  for (const [i, term] of LANCZOS.entries()) sum += term / (z + i);
  return 0.5 * Math.log(2 * Math.PI) + (z - 0.5) * Math.log(base) - base + Math.log(sum);
}
