/** Why a service will not do what it was asked, in words for who asked: the API answers it as a problem. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    detail: string,
    readonly errors?: { field: string; value?: unknown; message: string }[],
  ) {
    super(detail)
  }
}

export function refuse(...why: ConstructorParameters<typeof Refused>): never {
  throw new Refused(...why)
}
