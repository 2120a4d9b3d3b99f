package sharpkestrel.extract.learner;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sharpkestrel.extract.learner.ClassList.Entry;

class ClassListTest {

  @TempDir
  Path folder;

  @Test
  void classesGetColoursAndDigitsOfTheirOwnAndComeBackFromTheirFile() {
    ClassList list = ClassList.EMPTY.with("roof").with("it's \"odd\"").with("water");
    Path file = folder.resolve("classes.json");

    list.write(file);

    assertThat(ClassList.read(file)).isEqualTo(list);
    assertThat(list.classes().stream().map(Entry::colour).distinct()).hasSize(3);
    assertThat(list.classes().stream().map(Entry::digit)).containsExactly(1, 2, 3);
    assertThat(list.without("roof").with("rock").of("rock").orElseThrow().digit())
        .isEqualTo(1);
  }

  @Test
  void whatDoesNotGoTogetherIsRefused() throws Exception {
    ClassList list = ClassList.EMPTY.with("roof");
    assertThatThrownBy(() -> list.with("roof")).hasMessageContaining("Two classes");
    assertThatThrownBy(() -> new ClassList(List.of(
            new Entry("a", "#000000", 0, "b"),
            new Entry("b", "#111111", 0, "c"),
            new Entry("c", "#222222", 0, ""))))
        .hasMessageContaining("no class of its own");
    Path file = folder.resolve("broken.json");
    Files.writeString(
        file, "{\"kind\":\"class list\",\"classes\":[{\"name\":\"a\",\"colour\":\"red\"}]}");
    assertThatThrownBy(() -> ClassList.read(file)).hasMessageContaining("#RRGGBB");
  }
}
