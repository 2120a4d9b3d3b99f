package sharpkestrel.app.model;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.locationtech.jts.geom.Geometry;
import sharpkestrel.geo.GroundSize;
import sharpkestrel.objects.ObjectAt;
import sharpkestrel.objects.PickObjects;
import sharpkestrel.raster.Affine;
import sharpkestrel.raster.CrsName;
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

  /** A place that was clicked: a superpixel and where. */
  private record Click(int leaf, int col, int row) {}

  private final Workspace workspace;
  private final ReadOnlyObjectWrapper<Picked> picked = new ReadOnlyObjectWrapper<>();
  private final ObservableList<Picked> accepted = FXCollections.observableArrayList();
  private final ObservableList<Picked> seenAccepted =
      FXCollections.unmodifiableObservableList(accepted);
  private final KeptPicks kept;

  private Cut cut;

  /** The tree of what is accepted now, and the result it is of; they stay while something else is shown. */
  private MergeTree tree;

  private String treeName = "";

  private int[] nodePixels;
  private ClickedObject clicked;
  private int rung;
  private final List<Click> inside = new ArrayList<>();
  private final List<Click> outside = new ArrayList<>();

  public PickModel(Workspace workspace) {
    this.workspace = workspace;
    kept = new KeptPicks(workspace);
    workspace.paneAProperty().addListener((p, before, now) -> follow());
    follow();
  }

  private void follow() {
    Result shown = workspace.paneAProperty().get();
    cut = shown != null && shown.value() instanceof Cut now ? now : null;
    if (cut == null) {
      drop();
    } else if (cut.tree() != tree) {
      drop();
      nodePixels = null;
      tree = cut.tree();
      treeName = shown.name();
      accepted.setAll(kept.of(treeName));
    }
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
    Click click = click(col, row);
    if (click == null) {
      drop();
      return;
    }
    if (nodePixels == null) {
      nodePixels = Branch.pixelsOf(cut.tree());
    }
    inside.clear();
    outside.clear();
    inside.add(click);
    clicked = ClickedObject.at(
            cut,
            nodePixels,
            workspace.paneAProperty().get().backdrop(),
            col,
            row,
            Request.BACKGROUND)
        .orElseThrow();
    rung = clicked.rung();
    show();
  }

  /** What is picked must hold this pixel too. */
  public void addInside(int col, int row) {
    Click click = click(col, row);
    if (clicked == null) {
      pick(col, row);
    } else if (click != null) {
      outside.removeIf(c -> c.leaf == click.leaf);
      inside.add(click);
      show();
    }
  }

  /** What is picked must not hold this pixel. */
  public void addOutside(int col, int row) {
    Click click = click(col, row);
    if (clicked != null && click != null && inside.stream().noneMatch(c -> c.leaf == click.leaf)) {
      outside.add(click);
      show();
    }
  }

  /** Up or down to the next rung that is a thing of its own. */
  public void climb(int direction) {
    if (clicked != null && rung() >= 0) {
      rung = direction > 0 ? clicked.branch().above(rung) : clicked.branch().below(rung);
      show();
    }
  }

  /** Takes a rung of the branch. */
  public void take(int newRung) {
    if (clicked != null && rung() >= 0) {
      rung = newRung;
      show();
    }
  }

  public void drop() {
    clicked = null;
    inside.clear();
    outside.clear();
    picked.set(null);
  }

  /** Puts what is picked among the accepted. */
  public void accept() {
    if (picked.get() != null) {
      List<Picked> more = new ArrayList<>(accepted);
      more.add(picked.get());
      drop();
      change("accept object", more);
    }
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
    String name = treeName;
    CrsName crs = cut.superpixels().grid().crs();
    List<Picked> before = List.copyOf(accepted);
    List<Picked> after = List.copyOf(now);
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

  private Click click(int col, int row) {
    if (cut == null) {
      return null;
    }
    int[] label = new int[1];
    cut.superpixels().read(new Window(col, row, 1, 1), label);
    return label[0] > 0 ? new Click(label[0] - 1, col, row) : null;
  }

  private void show() {
    int[] nodes = rung() >= 0
        ? new int[] {clicked.branch().node(rung)}
        : Branch.cut(cut.tree(), leaves(inside), leaves(outside));
    if (nodes.length == 0) {
      workspace
          .warningProperty()
          .set(
              "Nothing holds the points inside without those outside. Take a point back: Esc begins anew.");
      return;
    }
    Affine ground = cut.superpixels().grid().affine();
    List<PickObjects.Part> parts = new ArrayList<>();
    List<Geometry> outlines = new ArrayList<>();
    double area = 0;
    for (int node : nodes) {
      int[] rowOf = Branch.rowOf(cut.tree(), new int[] {node});
      Click at = inside.stream().filter(c -> rowOf[c.leaf + 1] == 0).findFirst().orElseThrow();
      double own = nodePixels[node] * ground().area();
      parts.add(new PickObjects.Part(
          ground.x(at.col + 0.5, at.row + 0.5), ground.y(at.col + 0.5, at.row + 0.5), own));
      ObjectAt.outline(cut.superpixels(), rowOf, at.col, at.row).ifPresent(outlines::add);
      area += own;
    }
    picked.set(new Picked(parts, outlines, area));
  }

  private static int[] leaves(List<Click> clicks) {
    return clicks.stream().mapToInt(Click::leaf).toArray();
  }
}
