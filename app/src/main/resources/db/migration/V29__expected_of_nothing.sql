-- Nothing is expected to hold less than nothing.
UPDATE forecast_past SET low = GREATEST(low, 0), middle = GREATEST(middle, 0), high = GREATEST(high, 0) WHERE low < 0;
