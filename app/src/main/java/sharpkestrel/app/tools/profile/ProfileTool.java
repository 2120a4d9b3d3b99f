package sharpkestrel.app.tools.profile;

import java.util.Optional;
import javafx.scene.Node;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;
import sharpkestrel.app.viewer.PaneTool;
import sharpkestrel.flow.StepCatalogue;

/** Spectral profiles of places of the picture. */
public final class ProfileTool extends Tool {

  private final Desk desk;
  private ProfileModel model;
  private ProfileMarks marks;

  public ProfileTool(Desk desk) {
    super(StepCatalogue.get("profiles"));
    this.desk = desk;
  }

  /** The places; null before the tool was first in hand. */
  public ProfileModel model() {
    return model;
  }

  @Override
  protected Node makePanel() {
    model = new ProfileModel(desk.workspace(), watch());
    marks = new ProfileMarks(desk.workspace(), model);
    watch().on(model.places(), desk.picture()::repaint);
    return new ProfilePanel(desk, watch(), model);
  }

  @Override
  public Optional<PaneTool> inPicture() {
    return Optional.ofNullable(marks);
  }

  @Override
  protected void hidden() {
    desk.picture().clearOver();
    desk.workspace().lanes().trial().drop(model);
  }
}
