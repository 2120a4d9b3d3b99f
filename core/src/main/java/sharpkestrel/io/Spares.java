package sharpkestrel.io;

import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Supplier;

/** Arrays that are used again by whoever needs one next: what lies in the caches already need not be fetched and cleared. */
final class Spares<T> {

  private final ConcurrentLinkedQueue<T> spare = new ConcurrentLinkedQueue<>();
  private final Supplier<T> maker;

  Spares(Supplier<T> maker) {
    this.maker = maker;
  }

  /** One with whatever it held before. */
  T take() {
    T held = spare.poll();
    return held == null ? maker.get() : held;
  }

  void give(T done) {
    spare.add(done);
  }
}
