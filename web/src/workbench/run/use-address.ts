import { useRoute, useRouter, type LocationQueryRaw, type Router } from 'vue-router';

/** Parts of the address by name; undefined takes one out. */
export type AddressChange = Record<string, string | undefined>;

interface Queue {
  waiting: AddressChange;
  /** The page the changes are meant for. */
  path: string;
  done: Promise<void> | null;
  /** Where the router is on its way to: a change written meanwhile would call it back. */
  going: string | null;
}
/** One queue for each router, so that no change starts from an address that another is just changing. */
const queues = new WeakMap<Router, Queue>();

async function flush(router: Router, queue: Queue): Promise<void> {
  // What is written in one go comes together.
  await Promise.resolve();
  try {
    while (Object.keys(queue.waiting).length > 0) {
      const { waiting, path } = queue;
      queue.waiting = {};
      const { path: here, query } = router.currentRoute.value;
      // What was meant for another page has no place on this one.
      if (path !== (queue.going ?? here)) continue;
      const next: LocationQueryRaw = { ...query };
      for (const [name, text] of Object.entries(waiting)) {
        if (text === undefined) delete next[name];
        else next[name] = text;
      }
      await router.replace({ query: next });
    }
  } finally {
    queue.done = null;
  }
}

function queueOf(router: Router): Queue {
  const known = queues.get(router);
  if (known) return known;
  const queue: Queue = { waiting: {}, path: '', done: null, going: null };
  router.beforeEach(({ path }) => void (queue.going = path));
  router.afterEach(() => (queue.going = null));
  queues.set(router, queue);
  return queue;
}

/** The settings that stand in the address of the page: read from the route, written through one queue. */
export function useAddress() {
  const route = useRoute();
  const router = useRouter();
  const queue = queueOf(router);

  /** Changes parts of the address together; resolves once they stand there. */
  function change(parts: AddressChange): Promise<void> {
    if (queue.path !== route.path) queue.waiting = {};
    queue.path = route.path;
    Object.assign(queue.waiting, parts);
    return (queue.done ??= flush(router, queue));
  }

  const textOf = (name: string): string | undefined => {
    const text = route.query[name];
    return typeof text === 'string' ? text : undefined;
  };
  return { change, textOf };
}
