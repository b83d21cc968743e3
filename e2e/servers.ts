/** How many journeys run at a time, each on a demo of its own, so that none meets what another does meanwhile. */
export const WORKERS = 3;

const FIRST_PORT = 4680;
/** The application and its stand-ins, up to the ninth port after its own. */
const PORTS_EACH = 10;

export function portOf(worker: number): number {
  return FIRST_PORT + PORTS_EACH * worker;
}

/** The address of the demo on which a worker’s journeys run. */
export function addressOf(worker: number): string {
  return `http://127.0.0.1:${portOf(worker)}`;
}
