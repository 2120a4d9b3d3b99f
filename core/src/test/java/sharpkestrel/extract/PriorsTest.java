package sharpkestrel.extract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;

class PriorsTest {

  private static final List<String> CLASSES = List.of("ground", "roof", "x=y");

  @Test
  void classesThatAreNotNamedShareTheRest() {
    assertThat(Priors.of(List.of(" roof = 0.2"), CLASSES)).containsExactly(0.4, 0.2, 0.4);
    assertThat(Priors.of(List.of("roof=0.2", "x=y=0.1", "ground=0.7"), CLASSES))
        .containsExactly(0.7, 0.2, 0.1);
  }

  @Test
  void whatCannotBeIsSaidInWords() {
    for (String bad : List.of("roof", "roof=", "roof=0", "roof=-1", "roof=1.5", "roof=a")) {
      assertThatThrownBy(() -> Priors.of(List.of(bad), CLASSES)).hasMessageContaining("no prior");
    }
    assertThatThrownBy(() -> Priors.of(List.of("roof=0.7", "ground=0.6"), CLASSES))
        .hasMessageContaining("add up to 1.3");
    assertThatThrownBy(() -> Priors.of(List.of("shed=0.1"), CLASSES))
        .hasMessageContaining("no sample")
        .hasMessageContaining("ground, roof");
    assertThatThrownBy(() -> Priors.of(List.of("roof=0.5", "ground=0.5"), CLASSES))
        .hasMessageContaining("leave nothing");
  }
}
