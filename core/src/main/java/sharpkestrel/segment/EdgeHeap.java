package sharpkestrel.segment;

/**
 * Edges, the cheapest first: an indexed heap. Each place has {@value #WAYS} children: as many costs lie in a line of the
 * cache, and the heap is half as deep as with two. Ties go to the lower, then the other node number of an edge's ends.
 */
final class EdgeHeap {

  private static final int WAYS = 4;

  /** Costs of the edges in the heap, in its order. */
  private final float[] keys;

  private final int[] heap;
  private final int[] place;
  private final int[] halves;
  private final int[] node;
  private int size;

  /**
   * @param halves (input) edge by edge and end by end the region there, and another number
   * @param node (input) region by region its node; both arrays may change while the heap is used
   */
  EdgeHeap(int edges, int[] halves, int[] node) {
    keys = new float[edges];
    heap = new int[edges];
    place = new int[edges];
    this.halves = halves;
    this.node = node;
  }

  /** Adds an edge, numbered from 0; all are to be added, then {@link #order}ed. */
  void add(int e, float cost) {
    put(e, cost, e);
    size++;
  }

  void order() {
    for (int i = (size - 2) / WAYS; i >= 0 && size > 1; i--) {
      sink(i);
    }
  }

  boolean isEmpty() {
    return size == 0;
  }

  /** The cheapest edge. */
  int first() {
    return heap[0];
  }

  float leastCost() {
    return keys[0];
  }

  /** Whether an edge is in the heap still. */
  boolean has(int e) {
    return place[e] >= 0;
  }

  /** Gives an edge another cost. */
  void value(int e, float cost) {
    int i = place[e];
    keys[i] = cost;
    settle(i);
  }

  void remove(int e) {
    int i = place[e];
    place[e] = -1;
    size--;
    if (i < size) {
      put(i, keys[size], heap[size]);
      settle(i);
    }
  }

  private void settle(int i) {
    if (i > 0 && less(keys[i], heap[i], (i - 1) / WAYS)) {
      swim(i);
    } else {
      sink(i);
    }
  }

  private void put(int i, float key, int e) {
    keys[i] = key;
    heap[i] = e;
    place[e] = i;
  }

  /** Whether an edge comes before the one at a place of the heap. */
  private boolean less(float key, int e, int i) {
    return key < keys[i] || key == keys[i] && isEarlier(e, heap[i]);
  }

  private boolean isEarlier(int e, int f) {
    int e0 = node[halves[4 * e]];
    int e1 = node[halves[4 * e + 2]];
    int f0 = node[halves[4 * f]];
    int f1 = node[halves[4 * f + 2]];
    int eLow = Math.min(e0, e1);
    int fLow = Math.min(f0, f1);
    return eLow != fLow ? eLow < fLow : Math.max(e0, e1) < Math.max(f0, f1);
  }

  private void swim(int start) {
    int i = start;
    float key = keys[i];
    int e = heap[i];
    while (i > 0) {
      int up = (i - 1) / WAYS;
      if (!less(key, e, up)) {
        break;
      }
      put(i, keys[up], heap[up]);
      i = up;
    }
    put(i, key, e);
  }

  private void sink(int start) {
    int i = start;
    float key = keys[i];
    int e = heap[i];
    while (true) {
      int child = WAYS * i + 1;
      if (child >= size) {
        break;
      }
      int end = Math.min(size, child + WAYS);
      for (int other = child + 1; other < end; other++) {
        if (less(keys[other], heap[other], child)) {
          child = other;
        }
      }
      if (less(key, e, child)) {
        break;
      }
      put(i, keys[child], heap[child]);
      i = child;
    }
    put(i, key, e);
  }
}
