package harpel.format;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.util.DefaultIndenter;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import com.fasterxml.jackson.core.util.Separators;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.util.List;
import java.util.Map;

/** JSON text and plain values. */
public final class Json {
    private static final ObjectMapper MAPPER = JsonMapper.builder()
            .enable(JsonParser.Feature.STRICT_DUPLICATE_DETECTION)
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .build();

    private Json() {}

    /** @throws FileException with line and column */
    static Map<String, Object> parseObject(String text) throws FileException {
        try {
            @SuppressWarnings("unchecked") // Jackson makes a map with string keys of every JSON object
            Map<String, Object> map = MAPPER.readValue(text.startsWith("\uFEFF") ? text.substring(1) : text, Map.class);
            refuseEndless(map, "");
            if (map == null) {
                throw new FileException("line 1, column 1: expected an object { … }");
            }
            return map;
        } catch (JsonProcessingException e) {
            String where = e.getLocation() == null
                    ? ""
                    : "line " + e.getLocation().getLineNr() + ", column "
                            + e.getLocation().getColumnNr() + ": ";
            throw new FileException(
                    where + "this is not JSON: " + e.getOriginalMessage().split("\n")[0], e);
        }
    }

    /** A number too large for the machine would be read as infinity and written as something that is no JSON. */
    private static void refuseEndless(Object plain, String path) throws FileException {
        if (plain instanceof Double number && number.isInfinite()) {
            throw new FileException(
                    (path.isEmpty() ? "" : path + ": ") + "a number must be between −1.8e308 and 1.8e308");
        }
        if (plain instanceof Map<?, ?> map) {
            for (Map.Entry<?, ?> entry : map.entrySet()) {
                refuseEndless(entry.getValue(), path.isEmpty() ? "" + entry.getKey() : path + "." + entry.getKey());
            }
        } else if (plain instanceof List<?> list) {
            for (int i = 0; i < list.size(); i++) {
                refuseEndless(list.get(i), path + "[" + i + "]");
            }
        }
    }

    /** The same with the fields of every object in alphabetical order, for what is made from maps without one. */
    public static String writeSorted(Object plain) {
        try {
            String sorted = MAPPER.writer(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
                    .writeValueAsString(plain);
            return write(MAPPER.readValue(sorted, Object.class));
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a plain value could not be written", e);
        }
    }

    /** Indented text that ends with a line break; a list of numbers stays on its line. */
    public static String write(Object plain) {
        DefaultPrettyPrinter printer = new DefaultPrettyPrinter(
                        Separators.createDefaultInstance().withObjectFieldValueSpacing(Separators.Spacing.AFTER))
                .withObjectIndenter(new DefaultIndenter("  ", "\n"))
                .withArrayIndenter(new DefaultIndenter("  ", "\n"));
        try {
            String text = MAPPER.writer(printer).writeValueAsString(plain) + "\n";
            // Lists and objects of nothing but numbers and short words read better on one line.
            return Inline.shortened(text);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a plain value could not be written", e);
        }
    }
}
