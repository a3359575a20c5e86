package harpel.format;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import java.io.IOException;
import java.util.AbstractList;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Makes plain values of JSON: maps, lists, texts, numbers, truth and null, counting the memory they take. */
final class Plain {
    private static final long AN_OBJECT = 136;
    private static final long A_LIST = 64;
    private static final long AN_ITEM = 8;
    private static final long A_FIELD = 80;
    private static final long A_TEXT = 56;
    private static final long A_NUMBER = 16;

    private final JsonParser parser;
    private final InFile.Room room = new InFile.Room();

    /** @param length of the text that is read, which is there twice: as bytes and as text */
    Plain(JsonParser parser, int length) throws FileException {
        this.parser = parser;
        room.take(2L * length);
    }

    /** A list of whole numbers, as most notes are: in a quarter of the memory. */
    private static final class Numbers extends AbstractList<Object> {
        private final long[] numbers;

        Numbers(List<Object> items) {
            numbers = items.stream()
                    .mapToLong(item -> ((Number) item).longValue())
                    .toArray();
        }

        @Override
        public Object get(int index) {
            long number = numbers[index];
            // As the parser gives them, so that equal lists are equal.
            return number == (int) number ? (Object) (int) number : (Object) number;
        }

        @Override
        public int size() {
            return numbers.length;
        }
    }

    /** The object that begins at the parser's token. */
    Map<String, Object> object() throws IOException {
        Map<String, Object> fields = new LinkedHashMap<>();
        for (String name = parser.nextFieldName(); name != null; name = parser.nextFieldName()) {
            room.take(A_FIELD);
            parser.nextToken();
            fields.put(name, value());
        }
        room.take(AN_OBJECT);
        return fields;
    }

    private List<Object> list() throws IOException {
        List<Object> items = new ArrayList<>(4);
        boolean whole = true;
        while (parser.nextToken() != JsonToken.END_ARRAY) {
            Object item = value();
            whole &= item instanceof Integer || item instanceof Long;
            items.add(item);
            room.take(AN_ITEM);
        }
        room.take(A_LIST);
        return whole && !items.isEmpty() ? new Numbers(items) : items;
    }

    private Object value() throws IOException {
        return switch (parser.currentToken()) {
            case START_OBJECT -> object();
            case START_ARRAY -> list();
            case VALUE_STRING -> {
                String text = parser.getText();
                room.take(A_TEXT + text.length());
                yield text;
            }
            case VALUE_NUMBER_INT -> parser.getNumberValue();
            case VALUE_NUMBER_FLOAT -> {
                room.take(A_NUMBER);
                yield parser.getDoubleValue();
            }
            case VALUE_TRUE -> true;
            case VALUE_FALSE -> false;
            default -> null;
        };
    }
}
