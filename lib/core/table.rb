require "csv"

module Core
  # A table as spreadsheets write it (RFC 4180, or with semicolons): UTF-8 with or without its mark, or the alphabet of
  # old Windows; the first line names the columns.
  module Table
    module_function

    # @param bytes [String]
    # @param columns [Hash{Symbol => Array<String>}] what each may be called, in small letters
    # @param needed [Array<Symbol>] columns that must be there
    # @return [Array<Hash>] one for each row that is not empty: line, as an editor counts it where no cell has several
    #   lines, and the text in each column, nil where there is no such column
    # @raise [Invalid]
    def read(bytes, columns:, needed:)
      text = text_of(bytes)
      csv = CSV.new(text, headers: true, col_sep: separator(text), liberal_parsing: true)
      rows = []
      while (row = csv.shift)
        rows << [csv.lineno, row] if row.fields.any? { |field| !field.to_s.strip.empty? }
      end
      found = columns_of(csv.headers.is_a?(Array) ? csv.headers.compact : [], columns, needed)
      rows.map { |line, row| {line: line, **found.transform_values { |header| header && row[header]&.strip }} }
    rescue CSV::MalformedCSVError => error
      raise Invalid.new("The table cannot be read: #{error.message}", pointer: "/content")
    end

    # Several names in one cell: "Ines; Wen & Lars".
    # @return [Array<String>] so many at most
    def names(cell) = cell.to_s.split(%r{[;,/&]}, MOST_NAMES + 1).first(MOST_NAMES).map(&:strip).reject(&:empty?)

    MOST_NAMES = 40

    def text_of(bytes)
      text = bytes.dup.force_encoding(Encoding::UTF_8).delete_prefix("\uFEFF")
      return text if text.valid_encoding?

      bytes.dup.force_encoding(Encoding::Windows_1252).encode(Encoding::UTF_8, invalid: :replace, undef: :replace)
    end

    def separator(text)
      first = text.lines.first.to_s
      (first.count(";") > first.count(",")) ? ";" : ","
    end

    def columns_of(headers, columns, needed)
      found = columns.transform_values { |names| headers.find { |header| names.include?(header.strip.downcase) } }
      missing = needed.reject { |column| found[column] }
      return found if missing.empty?

      said = Words.list(missing.map { |column| "“#{columns[column].first}”" })
      raise Invalid.new("The first line must name the columns. Missing: #{said}.", pointer: "/content")
    end
  end
end
