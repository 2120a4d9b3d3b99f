package sharpkestrel.app.model;

import java.util.Optional;
import java.util.Set;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import sharpkestrel.expr.Table;
import sharpkestrel.step.Stage;

/** What is shown, and how: the results in the panes, their layout and look, the stage, what of it is picked. */
public final class Display {

  /** How the panes are laid out. */
  public enum Compare {
    ONE,
    SWIPE,
    SIDE_BY_SIDE
  }

  private final ObjectProperty<Result> paneA = new SimpleObjectProperty<>();
  private final ObjectProperty<Result> paneB = new SimpleObjectProperty<>();
  private final ObjectProperty<Stage> stage = new SimpleObjectProperty<>(Stage.GATHER);
  private final ObjectProperty<Look> look = new SimpleObjectProperty<>(Look.NATURAL);
  private final ObjectProperty<ObjectStyle> objectStyle =
      new SimpleObjectProperty<>(ObjectStyle.INITIAL);
  private final ObservableList<Look> ownLooks = FXCollections.observableArrayList();
  private final ObjectProperty<Set<String>> hiddenColumns = new SimpleObjectProperty<>(Set.of());
  private final ObjectProperty<Set<String>> hiddenClasses = new SimpleObjectProperty<>(Set.of());
  private final ObjectProperty<Compare> compare = new SimpleObjectProperty<>(Compare.ONE);
  private final ObjectProperty<ViewPlace> view = new SimpleObjectProperty<>();
  private final ObjectProperty<ViewPlace> viewWanted = new SimpleObjectProperty<>();
  private final ObjectProperty<Integer> selectedRow = new SimpleObjectProperty<>(-1);
  private final ObjectProperty<String> featureShown = new SimpleObjectProperty<>("");
  private final BooleanProperty bothPanesHeld = new SimpleBooleanProperty();

  /** The result that pane A shows; null for none. */
  public ObjectProperty<Result> paneAProperty() {
    return paneA;
  }

  public ObjectProperty<Result> paneBProperty() {
    return paneB;
  }

  public ObjectProperty<Stage> stageProperty() {
    return stage;
  }

  public ObjectProperty<Look> lookProperty() {
    return look;
  }

  /** The looks made here, in the order of their keys. */
  public ObservableList<Look> ownLooks() {
    return ownLooks;
  }

  /** Keeps a look, in place of one of the same name. */
  public void keepLook(Look look) {
    for (int k = 0; k < ownLooks.size(); k++) {
      if (ownLooks.get(k).name().equals(look.name())) {
        ownLooks.set(k, look);
        return;
      }
    }
    ownLooks.add(look);
  }

  /** How objects are drawn. */
  public ObjectProperty<ObjectStyle> objectStyleProperty() {
    return objectStyle;
  }

  /** The names of columns that no table shows. */
  public ObjectProperty<Set<String>> hiddenColumnsProperty() {
    return hiddenColumns;
  }

  /** The names of classes that no class map shows. */
  public ObjectProperty<Set<String>> hiddenClassesProperty() {
    return hiddenClasses;
  }

  public ObjectProperty<Compare> compareProperty() {
    return compare;
  }

  /** Where pane A looks; null while it shows nothing. */
  public ObjectProperty<ViewPlace> viewProperty() {
    return view;
  }

  /** Where pane A is to look as soon as it shows what it is to show; null for where it looks then. */
  public ObjectProperty<ViewPlace> viewWantedProperty() {
    return viewWanted;
  }

  /** The object picked, as a row of pane A's object set; -1 for none. */
  public ObjectProperty<Integer> selectedRowProperty() {
    return selectedRow;
  }

  /** The name of the feature that colours pane A's objects, where they have it; empty for none. */
  public ObjectProperty<String> featureShownProperty() {
    return featureShown;
  }

  /** The column of a table that colours its objects. */
  public Optional<Table.Column> featureOf(Table table) {
    String name = featureShown.get();
    return name != null && table.has(name) ? Optional.of(table.column(name)) : Optional.empty();
  }

  /** Whether the tool in hand works between both panes, so that what is shown may change and the tool stays. */
  public BooleanProperty bothPanesHeldProperty() {
    return bothPanesHeld;
  }

  /** Whether a result can be swiped over what pane A shows: both placed, or both raw. */
  public boolean sharesGround(Result result) {
    Result shown = paneA.get();
    return shown == null
        || shown.backdrop() == null
        || result.backdrop() == null
        || shown.backdrop().grid().crs().isKnown()
            == result.backdrop().grid().crs().isKnown();
  }

  /** Shows a result in pane A; null for none. */
  public void show(Result result) {
    selectedRow.set(-1);
    paneA.set(result);
  }
}
