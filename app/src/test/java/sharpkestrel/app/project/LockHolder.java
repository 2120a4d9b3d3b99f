package sharpkestrel.app.project;

import java.nio.file.Path;

/** Another process that has a project open, until it is ended. */
final class LockHolder {

  private LockHolder() {}

  public static void main(String[] args) throws InterruptedException {
    System.out.println(ProjectLock.take(Path.of(args[0])).isPresent() ? "held" : "refused");
    Thread.sleep(Long.MAX_VALUE);
  }
}
