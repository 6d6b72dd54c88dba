package org.vastshelf.app.build;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.RecordComponent;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.vastshelf.core.definition.VolumeTemplate;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.ColdPrices;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveHealth;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.EstateDefinition;
import org.vastshelf.core.estate.ExportRule;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.FileSystemKind;
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.estate.LiftRule;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.Pace;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Paces;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.PoolPrice;
import org.vastshelf.core.estate.PoolReserveRule;
import org.vastshelf.core.estate.ProtectionGoal;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.RehearsalRule;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.ReserveRule;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.Rule;
import org.vastshelf.core.estate.SavingRule;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.ScrubRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.SnapshotRule;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.snapshot.KeepRule;
import org.vastshelf.core.time.Schedule;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The JSON Schema in the documentation says what the records say. */
class SchemaTest {

    private static final JsonNode SCHEMA = JsonMapper.shared()
            .readTree(Path.of("..", "docs", "schema", "estate.schema.json").toFile());

    static Stream<Class<?>> records() {
        return Stream.of(
                Site.class,
                FileServer.class,
                Enclosure.class,
                Drive.class,
                DriveHealth.class,
                Pool.class,
                DriveGroup.class,
                Volume.class,
                Pace.class,
                Share.class,
                AccessRule.class,
                ExportRule.class,
                LimitRule.class,
                GrowthRule.class,
                LiftRule.class,
                ScrubRule.class,
                SnapshotRule.class,
                KeepRule.class,
                ProtectionGoal.class,
                ReserveRule.class,
                PoolReserveRule.class,
                PoolPrice.class,
                RehearsalRule.class,
                SavingRule.class,
                RetentionRule.class,
                RetentionRule.Seal.class,
                Link.class,
                ReplicaPair.class,
                ColdStore.class,
                ColdPrices.class,
                Schedule.class,
                Rebuild.class,
                Scrub.class,
                VolumeTemplate.class,
                Paces.class,
                Paces.Terms.class);
    }

    @ParameterizedTest
    @MethodSource("records")
    void every_member_is_described_and_required(Class<?> type) {
        assertDescribes(SCHEMA.path("$defs").path(type.getSimpleName()), type);
    }

    @Test
    void the_root_is_an_estate() {
        List<String> members = new ArrayList<>(List.of("format", "version"));
        EstateDefinition.kinds().forEach(kind -> members.add(kind.plural()));
        assertThat(SCHEMA.path("properties").propertyNames()).containsExactlyElementsOf(members);
        assertThat(SCHEMA.path("properties").path("version").path("const").asInt())
                .isEqualTo(EstateDefinition.VERSION);
    }

    private static void assertDescribes(JsonNode schema, Class<?> type) {
        List<String> members = Arrays.stream(type.getRecordComponents())
                .map(RecordComponent::getName)
                .toList();
        List<String> described = new ArrayList<>(schema.path("properties").propertyNames());
        if (Rule.class.isAssignableFrom(type)) {
            assertThat(schema.path("properties").path("rule").path("const").asString())
                    .isEqualTo(type.getSimpleName());
            described.remove("rule");
        }
        assertThat(described).as(type.getSimpleName()).containsExactlyInAnyOrderElementsOf(members);
        assertThat(texts(schema.path("required"))).containsExactlyInAnyOrderElementsOf(members);
    }

    @Test
    void every_choice_is_listed() {
        assertChoices("Drive", "kind", DriveKind.values());
        assertChoices("Drive", "state", DriveState.values());
        assertChoices("Pool", "pace", PaceClass.values());
        assertChoices("DriveGroup", "layout", Layout.values());
        assertChoices("DriveGroup", "part", DriveGroup.Part.values());
        assertChoices("ReplicaPair", "mode", ReplicaPair.Mode.values());
        assertChoices("RetentionRule", "basis", RetentionRule.Basis.values());
        assertChoices("Volume", "kind", FileSystemKind.values());
        assertChoices("AccessRule", "subject", AccessRule.Subject.values());
        assertChoices("AccessRule", "level", AccessRule.Level.values());
    }

    private static void assertChoices(String type, String member, Enum<?>[] values) {
        JsonNode choices =
                SCHEMA.path("$defs").path(type).path("properties").path(member).path("enum");
        assertThat(texts(choices))
                .containsExactlyInAnyOrderElementsOf(
                        Arrays.stream(values).map(Enum::name).toList());
    }

    private static List<String> texts(JsonNode array) {
        List<String> texts = new ArrayList<>();
        array.forEach(node -> texts.add(node.asString()));
        return texts;
    }
}
