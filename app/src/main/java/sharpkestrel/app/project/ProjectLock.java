package sharpkestrel.app.project;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import sharpkestrel.io.Json;
import sharpkestrel.raster.RasterException;

/**
 * Says who has a project open. The lock is one of the operating system: it goes with the process that holds it, however that
 * ends. A file beside it says who that is.
 */
final class ProjectLock {

  private static final String LOCK = ".lock";
  private static final String HOLDER = ".lock.json";

  /** What this process holds; a project that is opened here again is handed on. */
  private static final Map<Path, ProjectLock> HELD = new HashMap<>();

  private final Path folder;
  private final FileChannel channel;

  private ProjectLock(Path folder, FileChannel channel) {
    this.folder = folder;
    this.channel = channel;
  }

  /**
   * Takes a project; empty where another process has it.
   *
   * @throws RasterException where the folder cannot be written to
   */
  static synchronized Optional<ProjectLock> take(Path folder) {
    Path real = folder.toAbsolutePath().normalize();
    ProjectLock held = HELD.get(real);
    if (held != null) {
      return Optional.of(held);
    }
    try {
      Files.createDirectories(real);
      FileChannel channel =
          FileChannel.open(real.resolve(LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
      FileLock lock = tried(channel);
      if (lock == null) {
        channel.close();
        return Optional.empty();
      }
      Files.writeString(
          real.resolve(HOLDER),
          Json.pretty(Json.object()
              .put("process", ProcessHandle.current().pid())
              .put("user", System.getProperty("user.name", "somebody"))
              .put("machine", machine())
              .put("since", Instant.now().truncatedTo(ChronoUnit.SECONDS).toString())));
      ProjectLock taken = new ProjectLock(real, channel);
      HELD.put(real, taken);
      return Optional.of(taken);
    } catch (IOException notWritable) {
      throw new RasterException(
          "The project cannot be kept in " + folder + ": " + notWritable.getMessage(), notWritable);
    }
  }

  private static FileLock tried(FileChannel channel) throws IOException {
    try {
      return channel.tryLock();
    } catch (OverlappingFileLockException here) {
      return null;
    }
  }

  private static String machine() {
    try {
      return InetAddress.getLocalHost().getHostName();
    } catch (UnknownHostException nameless) {
      return "this machine";
    }
  }

  /** In words, who has a project open. */
  static String holder(Path folder) {
    try {
      JsonNode who = Json.read(folder.resolve(HOLDER));
      return who.path("user").asText("somebody") + " on " + who.path("machine").asText("a machine")
          + " since " + who.path("since").asText("a while");
    } catch (RasterException unknown) {
      return "somebody else";
    }
  }

  /** Lets others have it. */
  void release() {
    synchronized (ProjectLock.class) {
      HELD.remove(folder);
      try {
        Files.deleteIfExists(folder.resolve(HOLDER));
        channel.close();
      } catch (IOException gone) {
        // the system lets it go with the process
      }
    }
  }
}
