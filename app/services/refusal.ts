/** A service answered, but not with a forecast. */
export class ServiceRefusal extends Error {
  constructor(readonly status: number) {
    super(`the service answered ${status}`);
  }
}
