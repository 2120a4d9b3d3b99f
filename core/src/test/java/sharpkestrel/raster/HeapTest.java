package sharpkestrel.raster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;

class HeapTest {

  @Test
  void whatFitsPassesAndWhatDoesNotIsToldWithWhatToDo() {
    long most = Runtime.getRuntime().maxMemory();

    assertThatCode(() -> Heap.check(most, "It", "Take less")).doesNotThrowAnyException();
    assertThatThrownBy(() -> Heap.check(1L << 50, "The tree", "Take less of it"))
        .isInstanceOf(RasterException.class)
        .hasMessageStartingWith("The tree needs about 1048576.0 GiB of memory, and ")
        .hasMessageEndingWith(
            " may be used. Take less of it, or start with more: KESTREL_HEAP=1153434g.");
  }

  @Test
  void whereMemoryHasRunOutMoreIsAdvisedThanThereIs() {
    String told = Heap.exhausted();

    double gib = Runtime.getRuntime().maxMemory() / (double) (1L << 30);
    String advised = told.replaceAll(".*KESTREL_HEAP=(\\d+)g\\.", "$1");
    assertThat(Double.parseDouble(advised)).isGreaterThan(2 * gib);
  }
}
