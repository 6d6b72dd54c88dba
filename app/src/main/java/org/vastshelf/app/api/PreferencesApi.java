package org.vastshelf.app.api;

import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.vastshelf.app.preference.PreferenceStore;
import org.vastshelf.app.security.Someone;

/** How the caller likes to read. */
@RestController
class PreferencesApi {

    private final PreferenceStore preferences;

    PreferencesApi(PreferenceStore preferences) {
        this.preferences = preferences;
    }

    /** Units binary or decimal, theme light or dark; what is left out stays as it is. */
    record Wish(@Nullable String units, @Nullable String theme) {}

    @GetMapping("/api/v1/preferences")
    PreferenceStore.Preference preferences(@AuthenticationPrincipal Someone me) {
        return preferences.of(me.getName());
    }

    @PostMapping("/api/v1/preferences")
    PreferenceStore.Preference prefer(@AuthenticationPrincipal Someone me, @RequestBody Wish wish) {
        preferences.keep(me.getName(), wish.units == null ? "" : wish.units, wish.theme == null ? "" : wish.theme);
        return preferences.of(me.getName());
    }
}
