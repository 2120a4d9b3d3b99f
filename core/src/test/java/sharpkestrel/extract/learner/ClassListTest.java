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
  void aClassBelongsToAnotherAndIsListedBehindIt() {
    ClassList list = ClassList.EMPTY.with("roof").with("ground").with("metal").with("slate");

    ClassList after = list.within("metal", "roof").within("slate", "roof");

    assertThat(after.classes())
        .extracting(ClassList.Entry::name)
        .containsExactly("roof", "metal", "slate", "ground");
    assertThat(after.top("metal")).isEqualTo("roof");
    assertThat(after.top("ground")).isEqualTo("ground");
    assertThat(after.of("metal").orElseThrow().digit()).isEqualTo(3);
    assertThat(after.within("metal", "").top("metal")).isEqualTo("metal");
    assertThatThrownBy(() -> after.within("roof", "ground"))
        .hasMessageContaining("one level of parents");
    assertThatThrownBy(() -> after.within("ground", "metal")).hasMessageContaining("'metal'");
  }

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
