/** The same numbers each time: what fails can be looked at again. */
export function numbers(seed: number) {
  let state = seed;
  return (below: number) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}
