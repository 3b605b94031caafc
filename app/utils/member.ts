/**
 * What belongs to the member who is signed in: made when somebody signs in, gone when another does or nobody is.
 * A store or a shared composable that holds anything of a member says here how it is emptied.
 */
const emptied = new Set<() => void>()

/** @param empty  called at once when the member changes or leaves, before anything of the next is read */
export function ofMember(empty: () => void): void {
  emptied.add(empty)
}

/** Empties all that was held of a member in this tab. */
export function forgetMember(): void {
  for (const empty of emptied) empty()
}
