/** Places the nodes of a web by forces, away from the thread that draws. */
import {
  forceCenter,
  forceCollide,
  forceLink,
  forceManyBody,
  forceSimulation,
  forceX,
  forceY,
  type SimulationNodeDatum,
} from 'd3-force';

export interface ToPlace {
  /** How many nodes. */
  count: number;
  /** Pairs of places in the list of nodes. */
  links: [number, number][];
}
/** x and y of each node in turn; sent while they still move, and once more at rest. */
export type Places = Float32Array;

const SENT_EVERY = 6;
const MOST_TICKS = 300;

addEventListener('message', ({ data }: MessageEvent<ToPlace>) => {
  const nodes: SimulationNodeDatum[] = Array.from({ length: data.count }, () => ({}));
  const simulation = forceSimulation(nodes)
    .force(
      'link',
      forceLink(data.links.map(([source, target]) => ({ source, target })))
        .distance(60)
        .strength(0.5),
    ) // prettier-ignore
    .force('charge', forceManyBody().strength(-90).distanceMax(500))
    .force('collide', forceCollide(16))
    .force('x', forceX().strength(0.05))
    .force('y', forceY().strength(0.07))
    .force('center', forceCenter())
    .stop();
  const ticks = Math.min(MOST_TICKS, Math.max(60, Math.round(200_000 / Math.max(1, data.count))));
  simulation.alphaDecay(1 - Math.pow(0.001, 1 / ticks));
  for (let tick = 1; tick <= ticks; tick += 1) {
    simulation.tick();
    if (tick % SENT_EVERY && tick < ticks) continue;
    const places = new Float32Array(nodes.length * 2);
    nodes.forEach(({ x = 0, y = 0 }, i) => places.set([x, y], i * 2));
    postMessage(places, { transfer: [places.buffer] });
  }
});
