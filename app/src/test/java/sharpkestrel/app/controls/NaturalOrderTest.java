package sharpkestrel.app.controls;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class NaturalOrderTest {

  @Test
  void numbersAreSortedByTheirValue() {
    assertThat(List.of("cluster 10", "cluster 2", "Cluster 1", "area", "cluster 2 b").stream()
            .sorted(new NaturalOrder()))
        .containsExactly("area", "Cluster 1", "cluster 2", "cluster 2 b", "cluster 10");
  }

  @Test
  void placesAreThoseOfTheNames() {
    assertThat(NaturalOrder.places(List.of("c 11", "c 9", "", "7"))).containsExactly(2, 3, 1, 0);
  }
}
