package sharpkestrel.app.project;

import java.awt.image.BufferedImage;
import java.nio.file.Path;
import java.time.Duration;
import java.util.function.Supplier;
import javax.imageio.ImageIO;
import sharpkestrel.app.model.Workspace;
import sharpkestrel.io.AtomicFile;

/** A small picture of what a project shows, in its folder, for the list of projects. */
public final class ProjectPicture {

  public static final int WIDTH = 448;
  public static final int HEIGHT = 280;

  private static final Duration REST = Duration.ofSeconds(4);

  private ProjectPicture() {}

  /**
   * Keeps the picture: a while after something else is shown, and when the project is let go.
   *
   * @param pixels asked on the interface thread; ARGB row by row, empty while there is none
   */
  public static void keep(Workspace workspace, Supplier<int[]> pixels) {
    Runnable write = () -> write(workspace, pixels.get());
    workspace
        .display()
        .paneAProperty()
        .addListener(
            (p, before, now) -> workspace.lanes().save().atRest(ProjectPicture.class, REST, write));
    workspace.onClosing(write);
  }

  private static void write(Workspace workspace, int[] pixels) {
    Path folder = workspace.folder();
    if (pixels.length == 0 || workspace.isLookingOn() || !ProjectFile.isIn(folder)) {
      return;
    }
    Path file = folder.resolve(RecentProjects.PICTURE);
    workspace.lanes().save().write(file, () -> {
      BufferedImage image = new BufferedImage(WIDTH, HEIGHT, BufferedImage.TYPE_INT_RGB);
      image.setRGB(0, 0, WIDTH, HEIGHT, pixels, 0, WIDTH);
      AtomicFile.write(file, temporary -> ImageIO.write(image, "png", temporary.toFile()));
    });
  }
}
