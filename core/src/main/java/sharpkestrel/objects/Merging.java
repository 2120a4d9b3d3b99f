package sharpkestrel.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import sharpkestrel.expr.Table;
import sharpkestrel.raster.DisjointSets;

/** Objects that are being joined: which are one by now, how large they are, what they touch along how many pixel sides. */
final class Merging {

  private final ObjectSet set;
  private final Neighbours neighbours;
  private final DisjointSets sets;
  private final double[] area;
  private final List<List<Integer>> members;

  /**
   * @param area of each object
   */
  Merging(ObjectSet set, Neighbours neighbours, double[] area) {
    this.set = set;
    this.neighbours = neighbours;
    this.area = area.clone();
    sets = new DisjointSets(set.count());
    members = new ArrayList<>();
    for (int i = 0; i < set.count(); i++) {
      members.add(List.of(i));
    }
  }

  int root(int object) {
    return sets.root(object);
  }

  double area(int object) {
    return area[root(object)];
  }

  List<Integer> members(int object) {
    return members.get(root(object));
  }

  void join(int a, int b) {
    int rootA = root(a);
    int rootB = root(b);
    if (rootA == rootB) {
      return;
    }
    List<Integer> all = new ArrayList<>(members.get(rootA));
    all.addAll(members.get(rootB));
    double total = area[rootA] + area[rootB];
    int root = sets.unite(rootA, rootB);
    members.set(rootA, List.of());
    members.set(rootB, List.of());
    members.set(root, all);
    area[root] = total;
  }

  /** What an object touches by now: roots, with the pixel sides between. */
  Map<Integer, Integer> around(int object) {
    Map<Integer, Integer> around = new HashMap<>();
    int root = root(object);
    for (int member : members.get(root)) {
      for (int k = 0; k < neighbours.count(member); k++) {
        int other = root(neighbours.neighbour(member, k));
        if (other != root) {
          around.merge(other, neighbours.sides(member, k), Integer::sum);
        }
      }
    }
    return around;
  }

  /** Whose value of a neighbour is best, ties to the lower object. */
  interface Value {
    /** Higher is better. */
    double of(int object, int neighbour, int sides);
  }

  /** Joins every object under an area to its best neighbour, the smallest first. */
  void dissolve(double least, Value value) {
    PriorityQueue<double[]> small = new PriorityQueue<>(
        (a, b) -> a[0] != b[0] ? Double.compare(a[0], b[0]) : Double.compare(a[1], b[1]));
    for (int i = 0; i < area.length; i++) {
      if (area[i] < least) {
        small.add(new double[] {area[i], i});
      }
    }
    while (!small.isEmpty()) {
      double[] entry = small.poll();
      int object = (int) entry[1];
      if (root(object) != object || area[object] != entry[0]) {
        continue;
      }
      int best = -1;
      double most = Double.NEGATIVE_INFINITY;
      for (var neighbour : around(object).entrySet()) {
        double here = value.of(object, neighbour.getKey(), neighbour.getValue());
        if (here > most || here == most && neighbour.getKey() < best) {
          most = here;
          best = neighbour.getKey();
        }
      }
      if (best >= 0) {
        join(object, best);
        int root = root(object);
        if (area[root] < least) {
          small.add(new double[] {area[root], root});
        }
      }
    }
  }

  /**
   * The objects as they are by now, in order of their first members; each has the id and the texts of its largest member,
   * and its area. What else it measures is to be measured again.
   */
  ObjectSet result() {
    int[] place = new int[set.count()];
    Arrays.fill(place, -1);
    List<Integer> roots = new ArrayList<>();
    for (int i = 0; i < place.length; i++) {
      if (root(i) == i) {
        place[i] = roots.size();
        roots.add(i);
      }
    }
    int[] rowOf = new int[set.rowOf().length];
    for (int label = 0; label < rowOf.length; label++) {
      int object = set.rowOf()[label];
      rowOf[label] = object < 0 ? -1 : place[root(object)];
    }
    int[] largest = new int[roots.size()];
    double[] areas = new double[roots.size()];
    int[] ids = new int[roots.size()];
    double[] own = set.table().values("area");
    for (int r = 0; r < largest.length; r++) {
      int best = roots.get(r);
      for (int member : members.get(roots.get(r))) {
        best = own[member] > own[best] ? member : best;
      }
      largest[r] = best;
      areas[r] = area[roots.get(r)];
      ids[r] = set.ids()[best];
    }
    List<Table.Column> columns = new ArrayList<>();
    columns.add(FeatureCatalogue.column("area", areas));
    columns.addAll(Redrawing.texts(set.table(), largest));
    return new ObjectSet(
        set.labels(), rowOf, ids, new Table(largest.length, columns), set.ground());
  }
}
