package sharpkestrel.place.mosaic;

import java.util.Arrays;

/**
 * The cheapest cut of a graph between a source and a sink, by growing search trees from both (Boykov and Kolmogorov 2004,
 * An experimental comparison of min-cut/max-flow algorithms, IEEE Trans. PAMI 26(9), 1124-1137).
 */
final class MinCut {

  private static final int NONE = -1;
  private static final int TERMINAL = -2;
  private static final int ORPHAN = -3;

  private final int[] first;
  /** What a node can still take from the source; below 0: what it can still give to the sink. */
  private final long[] excess;

  private final int[] parent;
  private final int[] time;
  private final int[] distance;
  private final boolean[] inSink;
  private final boolean[] active;
  private int[] next;
  private int[] head;
  private int[] residual;
  private int arcs;
  private final IntQueue waiting = new IntQueue();
  private final IntQueue orphans = new IntQueue();
  private int clock;
  private long flow;

  MinCut(int nodes) {
    first = new int[nodes];
    Arrays.fill(first, NONE);
    excess = new long[nodes];
    parent = new int[nodes];
    Arrays.fill(parent, NONE);
    time = new int[nodes];
    distance = new int[nodes];
    inSink = new boolean[nodes];
    active = new boolean[nodes];
    next = new int[4 * nodes + 2];
    head = new int[4 * nodes + 2];
    residual = new int[4 * nodes + 2];
  }

  /** Adds what it costs to have a node on the sink's and on the source's side. */
  void add(int node, long onSink, long onSource) {
    flow += Math.min(onSink, onSource);
    excess[node] += onSink - onSource;
  }

  /** What it costs to have {@code from} on the source's side and {@code to} on the sink's, and the other way about. */
  void link(int from, int to, int there, int back) {
    if (arcs + 2 > head.length) {
      int size = 2 * head.length;
      next = Arrays.copyOf(next, size);
      head = Arrays.copyOf(head, size);
      residual = Arrays.copyOf(residual, size);
    }
    arc(from, to, there);
    arc(to, from, back);
  }

  private void arc(int from, int to, int capacity) {
    head[arcs] = to;
    residual[arcs] = capacity;
    next[arcs] = first[from];
    first[from] = arcs++;
  }

  /** Finds the cut and tells what it costs. */
  long solve() {
    for (int node = 0; node < first.length; node++) {
      if (excess[node] != 0) {
        inSink[node] = excess[node] < 0;
        parent[node] = TERMINAL;
        distance[node] = 1;
        activate(node);
      }
    }
    int node = NONE;
    while (true) {
      if (node == NONE || parent[node] == NONE) {
        node = nextActive();
        if (node == NONE) {
          return flow;
        }
      }
      int bridge = grow(node);
      clock++;
      if (bridge == NONE) {
        node = NONE;
      } else {
        augment(bridge);
        adopt();
      }
    }
  }

  /** Whether a node is on the source's side of the cut; where that is open it is on the sink's. */
  boolean onSource(int node) {
    return parent[node] != NONE && !inSink[node];
  }

  private void activate(int node) {
    if (!active[node]) {
      active[node] = true;
      waiting.add(node);
    }
  }

  private int nextActive() {
    while (!waiting.isEmpty()) {
      int node = waiting.poll();
      active[node] = false;
      if (parent[node] != NONE) {
        return node;
      }
    }
    return NONE;
  }

  /** An arc from the source's tree to the sink's, or none. */
  private int grow(int node) {
    boolean sink = inSink[node];
    for (int arc = first[node]; arc != NONE; arc = next[arc]) {
      if (residual[sink ? arc ^ 1 : arc] == 0) {
        continue;
      }
      int other = head[arc];
      if (parent[other] == NONE) {
        inSink[other] = sink;
        follow(other, arc ^ 1, node);
        activate(other);
      } else if (inSink[other] != sink) {
        return sink ? arc ^ 1 : arc;
      } else if (time[other] <= time[node] && distance[other] > distance[node]) {
        follow(other, arc ^ 1, node);
      }
    }
    return NONE;
  }

  private void follow(int node, int arc, int leader) {
    parent[node] = arc;
    time[node] = time[leader];
    distance[node] = distance[leader] + 1;
  }

  private void augment(int bridge) {
    long most = residual[bridge];
    int node = head[bridge ^ 1];
    for (; parent[node] != TERMINAL; node = head[parent[node]]) {
      most = Math.min(most, residual[parent[node] ^ 1]);
    }
    most = Math.min(most, excess[node]);
    node = head[bridge];
    for (; parent[node] != TERMINAL; node = head[parent[node]]) {
      most = Math.min(most, residual[parent[node]]);
    }
    most = Math.min(most, -excess[node]);
    int pushed = (int) most;
    push(bridge, pushed);
    for (node = head[bridge ^ 1]; parent[node] != TERMINAL; ) {
      int arc = parent[node] ^ 1;
      int up = head[parent[node]];
      push(arc, pushed);
      orphanWhere(residual[arc] == 0, node);
      node = up;
    }
    excess[node] -= pushed;
    orphanWhere(excess[node] == 0, node);
    for (node = head[bridge]; parent[node] != TERMINAL; ) {
      int arc = parent[node];
      int up = head[arc];
      push(arc, pushed);
      orphanWhere(residual[arc] == 0, node);
      node = up;
    }
    excess[node] += pushed;
    orphanWhere(excess[node] == 0, node);
    flow += pushed;
  }

  private void push(int arc, int amount) {
    residual[arc] -= amount;
    residual[arc ^ 1] += amount;
  }

  private void orphanWhere(boolean cutOff, int node) {
    if (cutOff) {
      parent[node] = ORPHAN;
      orphans.add(node);
    }
  }

  private void adopt() {
    while (!orphans.isEmpty()) {
      int node = orphans.poll();
      boolean sink = inSink[node];
      int best = NONE;
      int nearest = Integer.MAX_VALUE;
      for (int arc = first[node]; arc != NONE; arc = next[arc]) {
        int other = head[arc];
        if (residual[sink ? arc : arc ^ 1] > 0 && inSink[other] == sink && parent[other] != NONE) {
          int away = toTerminal(other);
          if (away < nearest) {
            nearest = away;
            best = arc;
          }
        }
      }
      parent[node] = best;
      if (best != NONE) {
        time[node] = clock;
        distance[node] = nearest + 1;
      } else {
        setFree(node, sink);
      }
    }
  }

  /** Steps from a node to its terminal, noted on the way; the greatest number where its tree has no root. */
  private int toTerminal(int start) {
    int steps = 0;
    int node = start;
    while (time[node] != clock) {
      steps++;
      if (parent[node] == TERMINAL) {
        time[node] = clock;
        distance[node] = 1;
        steps--;
        break;
      }
      if (parent[node] == ORPHAN || parent[node] == NONE) {
        return Integer.MAX_VALUE;
      }
      node = head[parent[node]];
    }
    int total = steps + distance[node];
    int away = total;
    for (node = start; time[node] != clock; node = head[parent[node]]) {
      time[node] = clock;
      distance[node] = away--;
    }
    return total;
  }

  private void setFree(int node, boolean sink) {
    for (int arc = first[node]; arc != NONE; arc = next[arc]) {
      int other = head[arc];
      if (inSink[other] != sink || parent[other] == NONE) {
        continue;
      }
      if (residual[sink ? arc : arc ^ 1] > 0) {
        activate(other);
      }
      if (parent[other] >= 0 && head[parent[other]] == node) {
        parent[other] = ORPHAN;
        orphans.add(other);
      }
    }
  }

  /** First in, first out. */
  private static final class IntQueue {
    private int[] items = new int[1024];
    private int start;
    private int count;

    boolean isEmpty() {
      return count == 0;
    }

    void add(int item) {
      if (count == items.length) {
        int[] larger = new int[2 * count];
        for (int i = 0; i < count; i++) {
          larger[i] = items[(start + i) & (count - 1)];
        }
        items = larger;
        start = 0;
      }
      items[(start + count++) & (items.length - 1)] = item;
    }

    int poll() {
      int item = items[start];
      start = (start + 1) & (items.length - 1);
      count--;
      return item;
    }
  }
}
