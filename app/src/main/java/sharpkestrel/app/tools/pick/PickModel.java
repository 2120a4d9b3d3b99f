package sharpkestrel.app.tools.pick;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.app.model.Result;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.tools.Watch;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.objects.ObjectAt;
import sharpkestrel.objects.PickObjects;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;
import sharpkestrel.segment.Branch;
import sharpkestrel.segment.ClickedObject;
import sharpkestrel.segment.Cut;
import sharpkestrel.segment.MergeTree;

/**
 * Objects that are picked out of a merge tree by clicks: the one in hand with the rungs of its branch, and those that were
 * accepted.
 */
public final class PickModel {

  /**
   * @param parts what it is made of
   * @param outlines of the parts, in ground coordinates
   * @param area in m², or pixels where the scene has no place
   */
  public record Picked(List<PickObjects.Part> parts, List<Geometry> outlines, double area) {}

  /** A pixel that was clicked. */
  private record Place(int col, int row) {}

  /**
   * What is picked by some places.
   *
   * @param clicked what the first place lies in, with its branch; null for nothing
   * @param picked null where nothing holds the one without the other
   */
  private record Found(ClickedObject clicked, int rung, Picked picked) {}

  /** What is being looked up, told apart by identity; accepted ahead where a quick hand did not wait for it. */
  private static final class Search {
    private boolean accepted;
  }

  private final Workspace workspace;
  private final ReadOnlyObjectWrapper<Picked> picked = new ReadOnlyObjectWrapper<>();
  private final ObservableList<Picked> accepted = FXCollections.observableArrayList();
  private final ObservableList<Picked> seenAccepted =
      FXCollections.unmodifiableObservableList(accepted);
  private final KeptPicks kept;
  private final ReadOnlyIntegerWrapper ready = new ReadOnlyIntegerWrapper();

  private Cut cut;

  /** The tree of what is accepted now, and the result it is of; they stay while something else is shown. */
  private MergeTree tree;

  private String treeName = "";

  /** Pixels of each node of the tree, worked out at the first pick; of the lane's thread. */
  private volatile int[] nodePixels;

  private ClickedObject clicked;
  private int rung;

  /** What was clicked last and is still being looked up; null for nothing. */
  private Search search;

  /** The system of each tree that was in hand, by its result's name. */
  private final Map<String, CrsName> systems = new HashMap<>();

  /** Searches whose finds are accepted as they come. */
  private int acceptedAhead;

  private final List<Place> inside = new ArrayList<>();
  private final List<Place> outside = new ArrayList<>();

  /**
   * @param watch followed while the tool is in hand
   */
  public PickModel(Workspace workspace, Watch watch) {
    this.workspace = workspace;
    kept = new KeptPicks(workspace);
    watch.on(workspace.display().paneAProperty(), now -> follow());
    follow();
  }

  private void follow() {
    Result shown = workspace.display().paneAProperty().get();
    Cut now = shown != null && shown.value() instanceof Cut of ? of : null;
    if (now == null) {
      cut = null;
      drop();
    } else if (now.tree() == tree) {
      cut = now;
    } else {
      cut = null;
      drop();
      nodePixels = null;
      tree = now.tree();
      treeName = shown.name();
      systems.put(treeName, now.superpixels().grid().crs());
      accepted.clear();
      kept.ask(treeName, picks -> {
        if (tree == now.tree()) {
          cut = now;
          accepted.setAll(picks);
          ready.set(ready.get() + 1);
        }
      });
    }
  }

  /** Goes up whenever another tree can be picked from. */
  ReadOnlyIntegerProperty readyProperty() {
    return ready.getReadOnlyProperty();
  }

  /** Whether pane A shows a tree to pick from. */
  public boolean hasTree() {
    return cut != null;
  }

  public ReadOnlyObjectProperty<Picked> pickedProperty() {
    return picked.getReadOnlyProperty();
  }

  /** What was accepted of the tree, to be looked at. */
  public ObservableList<Picked> accepted() {
    return seenAccepted;
  }

  /** What the first click picked out of the tree, with its branch; empty where nothing is picked. */
  public Optional<ClickedObject> clicked() {
    return Optional.ofNullable(clicked);
  }

  /** The rung of the branch that is picked; below 0 where several points say what is picked. */
  public int rung() {
    return outside.isEmpty() && inside.size() == 1 ? rung : -1;
  }

  /** The ground size of the pixels that are picked from. */
  public GroundSize ground() {
    return cut.ground();
  }

  /** Picks the object at a pixel, at the rung of its branch that is most a thing of its own. */
  public void pick(int col, int row) {
    inside.clear();
    outside.clear();
    clicked = null;
    inside.add(new Place(col, row));
    find();
  }

  /** What is picked must hold this pixel too. */
  public void addInside(int col, int row) {
    if (inside.isEmpty()) {
      pick(col, row);
    } else {
      outside.remove(new Place(col, row));
      inside.add(new Place(col, row));
      find();
    }
  }

  /** What is picked must not hold this pixel. */
  public void addOutside(int col, int row) {
    if (!inside.isEmpty() && !inside.contains(new Place(col, row))) {
      outside.add(new Place(col, row));
      find();
    }
  }

  /** Up or down to the next rung that is a thing of its own. */
  public void climb(int direction) {
    if (clicked != null && rung() >= 0) {
      rung = direction > 0 ? clicked.branch().above(rung) : clicked.branch().below(rung);
      find();
    }
  }

  /** Takes a rung of the branch. */
  public void take(int newRung) {
    if (clicked != null && rung() >= 0) {
      rung = newRung;
      find();
    }
  }

  public void drop() {
    if (search != null) {
      workspace.lanes().trial().drop(search);
      search = null;
    }
    letGo();
  }

  private void letGo() {
    clicked = null;
    inside.clear();
    outside.clear();
    picked.set(null);
  }

  /** Puts what is picked among the accepted. */
  public void accept() {
    if (search != null) {
      // accepted as soon as it is found; the next click does not wait for that
      search.accepted = true;
      search = null;
      acceptedAhead++;
      letGo();
    } else if (picked.get() != null) {
      Picked one = picked.get();
      drop();
      accept(treeName, one);
    }
  }

  private void accept(String name, Picked one) {
    kept.ask(name, before -> {
      List<Picked> more = new ArrayList<>(before);
      more.add(one);
      change("accept object", name, before, more);
    });
  }

  /** Takes back what was accepted last. */
  public void takeBackLast() {
    if (!accepted.isEmpty()) {
      change("take object back", accepted.subList(0, accepted.size() - 1));
    }
  }

  /** Takes back all that was accepted of the tree. */
  public void takeBackAll() {
    change("take objects back", List.of());
  }

  private void change(String what, List<Picked> now) {
    change(what, treeName, List.copyOf(accepted), List.copyOf(now));
  }

  private void change(String what, String name, List<Picked> before, List<Picked> after) {
    CrsName crs = systems.get(name);
    workspace.undo().change(what, () -> put(name, after, crs), () -> put(name, before, crs));
  }

  private void put(String name, List<Picked> picks, CrsName crs) {
    kept.put(name, picks, crs);
    if (name.equals(treeName)) {
      accepted.setAll(picks);
    }
  }

  /** The accepted ones as the step takes them. */
  public String places() {
    return PickObjects.toText(accepted.stream().map(Picked::parts).toList());
  }

  /** Finds what the places pick, away from the interface thread: the newest of quick clicks counts, by all of them. */
  private void find() {
    if (cut == null) {
      return;
    }
    Cut of = cut;
    Raster scene = workspace.display().paneAProperty().get().backdrop();
    List<Place> in = List.copyOf(inside);
    List<Place> out = List.copyOf(outside);
    ClickedObject known = clicked;
    int wanted = rung;
    if (search != null) {
      workspace.lanes().trial().drop(search);
    }
    Search mine = new Search();
    search = mine;
    String name = treeName;
    workspace
        .lanes()
        .trial()
        .ask(
            mine,
            "",
            job -> found(of, scene, in, out, known, wanted, job.request()),
            found -> {
              if (mine.accepted) {
                acceptedAhead--;
                Optional.ofNullable(found.picked).ifPresent(one -> accept(name, one));
              } else {
                search = null;
                show(found);
              }
            },
            failure -> {
              acceptedAhead -= mine.accepted ? 1 : 0;
              search = search == mine ? null : search;
              workspace.messages().tell(failure.getMessage());
            });
  }

  private void show(Found found) {
    if (found.clicked == null) {
      drop();
      return;
    }
    clicked = found.clicked;
    rung = found.rung;
    if (found.picked == null) {
      workspace
          .messages()
          .warn(
              "Nothing holds the points inside without those outside. Take a point back: Esc begins anew.");
      return;
    }
    picked.set(found.picked);
  }

  /** Whether what was clicked last is still being looked up. */
  public boolean isFinding() {
    return search != null || acceptedAhead > 0;
  }

  private Found found(
      Cut of,
      Raster scene,
      List<Place> in,
      List<Place> out,
      ClickedObject known,
      int wantedRung,
      Request request) {
    int[] leavesIn = leaves(of, in);
    if (leavesIn[0] < 0) {
      return new Found(null, 0, null);
    }
    if (nodePixels == null) {
      nodePixels = Branch.pixelsOf(of.tree());
    }
    ClickedObject clickedNow = known != null
        ? known
        : ClickedObject.at(of, nodePixels, scene, in.getFirst().col, in.getFirst().row, request)
            .orElseThrow();
    int rungNow = known != null ? wantedRung : clickedNow.rung();
    int[] held = Arrays.stream(leavesIn).filter(leaf -> leaf >= 0).toArray();
    int[] leftOut = Arrays.stream(leaves(of, out))
        .filter(leaf -> leaf >= 0 && Arrays.stream(held).noneMatch(h -> h == leaf))
        .toArray();
    int[] nodes = in.size() == 1 && out.isEmpty()
        ? new int[] {clickedNow.branch().node(rungNow)}
        : Branch.cut(of.tree(), held, leftOut);
    return new Found(
        clickedNow, rungNow, nodes.length == 0 ? null : shape(of, nodes, in, leavesIn));
  }

  private Picked shape(Cut of, int[] nodes, List<Place> in, int[] leavesIn) {
    Affine ground = of.superpixels().grid().affine();
    List<PickObjects.Part> parts = new ArrayList<>();
    List<Geometry> outlines = new ArrayList<>();
    double area = 0;
    for (int node : nodes) {
      int[] rowOf = Branch.rowOf(of.tree(), new int[] {node});
      int which = 0;
      while (leavesIn[which] < 0 || rowOf[leavesIn[which] + 1] != 0) {
        which++;
      }
      Place at = in.get(which);
      double own = nodePixels[node] * of.ground().area();
      parts.add(new PickObjects.Part(
          ground.x(at.col + 0.5, at.row + 0.5), ground.y(at.col + 0.5, at.row + 0.5), own));
      ObjectAt.outline(of.superpixels(), rowOf, at.col, at.row).ifPresent(outlines::add);
      area += own;
    }
    return new Picked(parts, outlines, area);
  }

  /** The superpixel at each place, counted from 0; below 0 where there is none. */
  private static int[] leaves(Cut of, List<Place> places) {
    int[] label = new int[1];
    return places.stream()
        .mapToInt(place -> {
          of.superpixels().read(new Window(place.col, place.row, 1, 1), label);
          return label[0] - 1;
        })
        .toArray();
  }
}
