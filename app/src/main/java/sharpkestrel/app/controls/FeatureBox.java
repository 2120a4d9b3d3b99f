package sharpkestrel.app.controls;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Predicate;
import javafx.animation.PauseTransition;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ListView;
import javafx.scene.control.Skin;
import javafx.scene.control.skin.ComboBoxListViewSkin;
import javafx.scene.input.KeyEvent;
import javafx.util.Duration;
import javafx.util.StringConverter;
import sharpkestrel.expr.Table;

/**
 * A choice of one feature of a table by its title; holds the name of the column, empty for none. Letters that are typed while
 * the list is open go to the next title that has them.
 */
public final class FeatureBox extends ComboBox<String> {

  private static final int LINES = 16;

  private final String none;
  private final Predicate<Table.Column> offered;
  private final PauseTransition rested = new PauseTransition(Duration.seconds(1));
  private String typed = "";
  private Table table = new Table(0, List.of());

  /**
   * @param none what stands for no feature; empty where there must be one
   * @param offered the columns that can be chosen
   */
  public FeatureBox(String none, Predicate<Table.Column> offered) {
    this.none = none;
    this.offered = offered;
    setVisibleRowCount(LINES);
    setConverter(new StringConverter<>() {
      @Override
      public String toString(String name) {
        return name == null || name.isEmpty() || !table.has(name)
            ? none
            : table.column(name).title();
      }

      @Override
      public String fromString(String title) {
        return null;
      }
    });
  }

  @Override
  protected Skin<?> createDefaultSkin() {
    ComboBoxListViewSkin<String> skin = new ComboBoxListViewSkin<>(this);
    @SuppressWarnings("unchecked")
    ListView<String> list = (ListView<String>) skin.getPopupContent();
    list.addEventFilter(KeyEvent.KEY_TYPED, e -> {
      if (!e.getCharacter().isBlank() && e.getCharacter().charAt(0) > ' ') {
        typed = typed + e.getCharacter().toLowerCase(Locale.ROOT);
        rested.playFromStart();
        find(list);
        e.consume();
      }
    });
    rested.setOnFinished(e -> typed = "");
    return skin;
  }

  private void find(ListView<String> list) {
    for (int pass = 0; pass < 2; pass++) {
      for (int i = 0; i < getItems().size(); i++) {
        String title = getConverter().toString(getItems().get(i)).toLowerCase(Locale.ROOT);
        // those that begin so before those that only have it
        if (pass == 0 ? title.startsWith(typed) : title.contains(typed)) {
          list.getSelectionModel().select(i);
          list.scrollTo(Math.max(0, i - 2));
          return;
        }
      }
    }
  }

  /** Offers the columns of a table; what was chosen stays where it has such a column, else the first is. */
  public void offer(Table newTable) {
    String before = getValue();
    List<String> names = new ArrayList<>();
    if (!none.isEmpty()) {
      names.add("");
    }
    newTable.columns().stream().filter(offered).map(Table.Column::name).forEach(names::add);
    table = newTable;
    getItems().setAll(names);
    setValue(names.contains(before) ? before : names.isEmpty() ? null : names.getFirst());
  }

  /** The column that is chosen; empty for none. */
  public Optional<Table.Column> chosen() {
    return Optional.ofNullable(getValue()).filter(table::has).map(table::column);
  }

  /** Chooses a column where there is one of that name. */
  public void choose(String name) {
    if (getItems().contains(name) && !Objects.equals(name, getValue())) {
      setValue(name);
    }
  }
}
