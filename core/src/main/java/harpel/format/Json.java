package harpel.format;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.core.util.DefaultIndenter;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import com.fasterxml.jackson.core.util.Separators;
import com.fasterxml.jackson.jr.ob.JSON;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** JSON text and plain values. */
public final class Json {
    private static final JsonFactory FACTORY = JsonFactory.builder()
            .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
            .build();
    private static final JSON PLAIN = JSON.builder(FACTORY)
            .enable(JSON.Feature.WRITE_NULL_PROPERTIES)
            .disable(JSON.Feature.FLUSH_AFTER_WRITE_VALUE)
            .build();
    private static final Separators SEPARATORS =
            Separators.createDefaultInstance().withObjectFieldValueSpacing(Separators.Spacing.AFTER);
    private static final JSON ONE_LINE = PLAIN.with(new DefaultPrettyPrinter(SEPARATORS)
            .withObjectIndenter(DefaultPrettyPrinter.FixedSpaceIndenter.instance)
            .withArrayIndenter(DefaultPrettyPrinter.FixedSpaceIndenter.instance));
    /** How long a line may be that holds a whole list or object. */
    private static final int WIDTH = 114;

    private static final int CHECKED_AT_ONCE = 1 << 13;

    /** How files of other kinds begin, and what they are. */
    private static final Map<String, String> OTHERS = Map.of(
            "MThd", "a MIDI file",
            "RIFF", "a sound file or a bank of sounds",
            "\u0089PNG", "a picture",
            "PK\u0003\u0004", "a ZIP archive",
            "%PDF", "a PDF document");

    private Json() {}

    /**
     * The text of a file.
     *
     * @throws FileException when it is none, saying what it seems to be, or which byte is no UTF-8 (RFC 3629)
     */
    static String text(byte[] bytes) throws FileException {
        String begins = new String(bytes, 0, Math.min(4, bytes.length), StandardCharsets.ISO_8859_1);
        if (OTHERS.containsKey(begins)) {
            throw new FileException("this is not a file of Harpel but " + OTHERS.get(begins));
        }
        CharsetDecoder decoder = StandardCharsets.UTF_8
                .newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        ByteBuffer left = ByteBuffer.wrap(bytes);
        CharBuffer piece = CharBuffer.allocate(Math.min(bytes.length + 1, CHECKED_AT_ONCE));
        CoderResult result;
        do {
            result = decoder.decode(left, piece.clear(), true);
        } while (result.isOverflow());
        if (result.isError()) {
            int at = left.position();
            throw FileException.atByte(
                    at, String.format("%02X is no UTF-8; save the text as UTF-8 and open it again", bytes[at]));
        }
        return new String(bytes, StandardCharsets.UTF_8);
    }

    /** @throws FileException with line and column */
    static Map<String, Object> parseObject(String text) throws FileException {
        String plain = text.startsWith("\uFEFF") ? text.substring(1) : text;
        String begin = plain.stripLeading();
        if (!begin.startsWith("{")) {
            throw new FileException(
                    begin.isEmpty()
                            ? "this file is empty"
                            : "this is not a file of Harpel but "
                                    + (begin.startsWith("<") ? "a web page or XML" : "a text")
                                    + "; files of Harpel begin with {");
        }
        try (JsonParser parser = FACTORY.createParser(plain)) {
            parser.nextToken();
            Map<String, Object> map = new Plain(parser, text.length()).object();
            if (parser.nextToken() != null) {
                throw new FileException(where(parser.currentTokenLocation()) + "expected the end after the object");
            }
            String endless = endless(map);
            if (endless != null) {
                throw new FileException(endless.substring(1) + ": a number must be between −1.8e308 and 1.8e308");
            }
            return map;
        } catch (JsonProcessingException e) {
            throw new FileException(
                    where(e.getLocation()) + "this is not JSON: "
                            + e.getOriginalMessage().split("\n")[0],
                    e);
        } catch (FileException e) {
            throw e;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String where(JsonLocation place) {
        return place == null ? "" : "line " + place.getLineNr() + ", column " + place.getColumnNr() + ": ";
    }

    /**
     * Where a number is too large for the machine: it would be read as infinity and written as something that is no JSON. Null where
     * none is.
     */
    private static String endless(Object plain) {
        if (plain instanceof Map<?, ?> map) {
            for (Map.Entry<?, ?> entry : map.entrySet()) {
                String inside = endless(entry.getValue());
                if (inside != null) {
                    return "." + entry.getKey() + inside;
                }
            }
        } else if (plain instanceof List<?> list) {
            for (int i = 0; i < list.size(); i++) {
                String inside = endless(list.get(i));
                if (inside != null) {
                    return "[" + i + "]" + inside;
                }
            }
        }
        return plain instanceof Double number && number.isInfinite() ? "" : null;
    }

    /** The same with the fields of every object in alphabetical order, for what is made from maps without one. */
    public static String writeSorted(Object plain) {
        return write(sorted(plain));
    }

    private static Object sorted(Object plain) {
        if (plain instanceof Map<?, ?> map) {
            Map<String, Object> sorted = new TreeMap<>();
            map.forEach((key, value) -> sorted.put((String) key, sorted(value)));
            return sorted;
        }
        return plain instanceof List<?> list ? list.stream().map(Json::sorted).toList() : plain;
    }

    /** Indented text that ends with a line break. */
    public static String write(Object plain) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            write(plain, bytes);
        } catch (IOException e) {
            throw new UncheckedIOException("a plain value could not be written", e);
        }
        return bytes.toString(StandardCharsets.UTF_8);
    }

    /** The same as UTF-8 into a stream, which stays open, so that it need not be in memory at once. */
    public static void write(Object plain, OutputStream out) throws IOException {
        try (JsonGenerator generator = FACTORY.createGenerator(out)
                .disable(JsonGenerator.Feature.AUTO_CLOSE_TARGET)
                .setPrettyPrinter(new DefaultPrettyPrinter(SEPARATORS)
                        .withObjectIndenter(new DefaultIndenter("  ", "\n"))
                        .withArrayIndenter(new DefaultIndenter("  ", "\n")))) {
            write(plain, generator);
            generator.writeRaw('\n');
        }
    }

    /** A list or an object that holds no other is one line where it fits, so that a note or a stage is one line to compare. */
    private static void write(Object plain, JsonGenerator out) throws IOException {
        if (plain instanceof Map<?, ?> map && !line(map, map.values(), out)) {
            out.writeStartObject();
            for (Map.Entry<?, ?> field : map.entrySet()) {
                out.writeFieldName((String) field.getKey());
                write(field.getValue(), out);
            }
            out.writeEndObject();
        } else if (plain instanceof List<?> list && !line(list, list, out)) {
            out.writeStartArray();
            for (Object item : list) {
                write(item, out);
            }
            out.writeEndArray();
        } else if (!(plain instanceof Map || plain instanceof List)) {
            PLAIN.write(plain, out);
        }
    }

    /** Writes on one line what holds nothing but plain values, where it fits; false where not. */
    private static boolean line(Object whole, Collection<?> items, JsonGenerator out) throws IOException {
        if (items.size() > WIDTH || items.stream().anyMatch(item -> item instanceof Map || item instanceof List)) {
            return false;
        }
        String line = ONE_LINE.asString(whole);
        if (line.length() > WIDTH) {
            return false;
        }
        out.writeRawValue(line);
        return true;
    }
}
