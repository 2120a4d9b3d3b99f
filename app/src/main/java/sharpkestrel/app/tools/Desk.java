package sharpkestrel.app.tools;

import sharpkestrel.app.model.ObjectChoice;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.app.viewer.PictureView;

/** What tools work on: the project in hand, the picture, and which objects of it are chosen. */
public final class Desk {

  private final Workspace workspace;
  private final PictureView picture;
  private final ObjectChoice choice;
  private final ChoicePainter painter;

  public Desk(Workspace workspace, PictureView picture) {
    this.workspace = workspace;
    this.picture = picture;
    choice = new ObjectChoice(workspace);
    painter = new ChoicePainter(workspace, choice, picture);
  }

  public Workspace workspace() {
    return workspace;
  }

  public PictureView picture() {
    return picture;
  }

  /** Which objects of what pane A shows are chosen. */
  public ObjectChoice choice() {
    return choice;
  }

  /** Draws pane A's objects by what is chosen again, after a tool has drawn them its own way. */
  public void paintChoice() {
    painter.paintAnew();
  }
}
