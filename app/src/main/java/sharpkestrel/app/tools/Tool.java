package sharpkestrel.app.tools;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.Button;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.flow.StepSpec;
import sharpkestrel.step.Stage;

/**
 * A tool of the bench: what it is called, where it stands, its panel, what it listens to in the picture and its keys. The
 * bench, the picture, the keys and their help are made from the list of tools. One that is not in hand does no work and paints
 * nothing: what it follows, it follows through its {@link Watch}, and what it lays over the picture it takes away when it is
 * put away.
 */
public abstract class Tool {

  private final String id;
  private final String title;
  private final Stage stage;
  private final String family;
  private final Watch watch = new Watch();
  private final List<InHand> whileInHand = new ArrayList<>();
  private Node panel;

  /**
   * @param stage at whose head it stands; null for every one
   */
  protected Tool(String id, String title, Stage stage) {
    this(id, title, stage, "");
  }

  private Tool(String id, String title, Stage stage, String family) {
    this.id = id;
    this.title = title;
    this.stage = stage;
    this.family = family;
  }

  /** The tool of a step. */
  protected Tool(StepSpec step) {
    this(step.id(), step.title(), step.stage(), step.family());
  }

  public final String id() {
    return id;
  }

  public final String title() {
    return title;
  }

  /** The stage at whose head it stands; empty for every one. */
  public final Optional<Stage> stage() {
    return Optional.ofNullable(stage);
  }

  /** Which tools of its stage it stands together with; empty where those are few. */
  public final String family() {
    return family;
  }

  /** The steps that are run from this tool and have none of their own. */
  public Set<String> steps() {
    return Set.of(id);
  }

  /** Makes the panel when the tool is first in hand. */
  protected abstract Node makePanel();

  /** What the panel and the tool follow while it is in hand. */
  protected final Watch watch() {
    return watch;
  }

  /** With something that begins when the tool is taken in hand, in the order in which it is told so, and stops when it is put away. */
  protected final <T extends InHand> T whileInHand(T each) {
    whileInHand.add(each);
    return each;
  }

  /** What takes clicks and drags in the picture while it is in hand, and is drawn over it. */
  public Optional<PaneTool> inPicture() {
    return Optional.empty();
  }

  /** Whether it works between both panes, so that what is shown may change and the tool stays. */
  public boolean isBetweenPanes() {
    return false;
  }

  /** Its keys; each has one meaning among them. */
  public List<ToolKey> keys() {
    return List.of();
  }

  /** It is in hand now, and its panel is to be seen. */
  protected void shown() {}

  /** It is put away: what it laid over the picture goes. */
  protected void hidden() {}

  /** Gives up what is begun and not done. */
  public void drop() {}

  /** Is set as it was when what pane A shows was made with it, to be run otherwise. */
  public void takeAsMade() {
    if (panel != null && panel.lookup("#" + id + "-as-made") instanceof Button asMade) {
      asMade.fire();
    }
  }

  /** Does what its main button does. */
  public void run() {
    if (panel != null && panel.lookup("#" + id + "-run") instanceof Button run) {
      run.fire();
    }
  }

  /** Takes it in hand; its panel. */
  public final Node take() {
    if (panel == null) {
      panel = makePanel();
    }
    watch.begin();
    whileInHand.forEach(each -> each.setInHand(true));
    shown();
    return panel;
  }

  /** Puts it away. */
  public final void putAway() {
    whileInHand.reversed().forEach(each -> each.setInHand(false));
    hidden();
    watch.end();
  }
}
