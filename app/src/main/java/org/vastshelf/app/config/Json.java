package org.vastshelf.app.config;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonValue;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.PoolEdit;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Cidr;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Hold;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.Rule;
import org.vastshelf.core.failure.Mishap;
import org.vastshelf.core.unit.Bytes;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.MapperFeature;
import tools.jackson.databind.json.JsonMapper;

/** How core's types look as JSON: sizes and paths as plain values, changes and steps by their simple name. */
@Configuration
public class Json {

    @Bean
    JsonMapperBuilderCustomizer coreTypes() {
        return Json::customise;
    }

    private static void customise(JsonMapper.Builder builder) {
        builder.addModule(DefinitionJson.module())
                .addMixIn(Rule.class, RuleMixIn.class)
                .addMixIn(Bytes.class, BytesMixIn.class)
                .addMixIn(Cidr.class, TextMixIn.class)
                .addMixIn(FilePath.class, TextMixIn.class)
                .addMixIn(Change.class, ChangeMixIn.class)
                .addMixIn(Step.class, StepMixIn.class)
                .addMixIn(PoolEdit.class, PoolEditMixIn.class)
                .addMixIn(Mishap.class, MishapMixIn.class)
                .addMixIn(FileServer.class, FileServerMixIn.class)
                .addMixIn(RetentionRule.class, RetentionRuleMixIn.class)
                .addMixIn(Drive.class, DriveMixIn.class)
                .addMixIn(Pool.class, PoolMixIn.class)
                .addMixIn(DriveGroup.class, DriveGroupMixIn.class)
                .addMixIn(Rebuild.class, RebuildMixIn.class)
                .addMixIn(Arrival.class, ArrivalMixIn.class)
                .addMixIn(Hold.class, HoldMixIn.class)
                .enable(
                        DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES,
                        DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES,
                        DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
                .disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)
                .disable(MapperFeature.ALLOW_COERCION_OF_SCALARS, MapperFeature.REQUIRE_TYPE_ID_FOR_SUBTYPES);
    }

    abstract static class BytesMixIn {
        @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
        BytesMixIn(long value) {}

        @JsonValue
        abstract long value();
    }

    abstract static class TextMixIn {
        @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
        TextMixIn(String text) {}

        @JsonValue
        abstract String text();
    }

    @JsonTypeInfo(use = JsonTypeInfo.Id.SIMPLE_NAME, property = "change")
    interface ChangeMixIn {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.SIMPLE_NAME, property = "rule")
    interface RuleMixIn {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.SIMPLE_NAME, property = "mishap")
    interface MishapMixIn {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.SIMPLE_NAME, property = "edit")
    interface PoolEditMixIn {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.SIMPLE_NAME, property = "step")
    interface StepMixIn {}

    /** What follows from other members is written for readers and means nothing when it is read back. */
    @JsonIgnoreProperties(value = "reachable", allowGetters = true)
    interface FileServerMixIn {}

    @JsonIgnoreProperties(value = "sealed", allowGetters = true)
    interface RetentionRuleMixIn {}

    @JsonIgnoreProperties(value = "free", allowGetters = true)
    interface DriveMixIn {}

    @JsonIgnoreProperties(
            value = {"reservation", "mixed", "lost", "tiered"},
            allowGetters = true)
    interface PoolMixIn {}

    @JsonIgnoreProperties(
            value = {"leaving", "fast"},
            allowGetters = true)
    interface DriveGroupMixIn {}

    @JsonIgnoreProperties(value = "complete", allowGetters = true)
    interface RebuildMixIn {}

    @JsonIgnoreProperties(value = "ready", allowGetters = true)
    interface ArrivalMixIn {}

    @JsonIgnoreProperties(value = "empty", allowGetters = true)
    interface HoldMixIn {}
}
