package org.vastshelf.app.foresee;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import org.vastshelf.core.forecast.Course;
import org.vastshelf.core.forecast.FillForecast.BandDay;

/**
 * A course as it is kept.
 *
 * @param days days ahead, then the three bounds, in bytes
 */
record StoredCourse(LocalDate last, long above, List<List<Long>> days) {

    static StoredCourse of(Course course) {
        return new StoredCourse(
                course.last(),
                Math.round(course.above()),
                course.days().stream()
                        .map(d -> List.of(
                                ChronoUnit.DAYS.between(course.last(), d.day()),
                                Math.round(d.low()),
                                Math.round(d.middle()),
                                Math.round(d.high())))
                        .toList());
    }

    Course course() {
        return new Course(
                days.stream()
                        .map(d -> new BandDay(last.plusDays(d.get(0)), d.get(1), d.get(2), d.get(3)))
                        .toList(),
                above);
    }
}
