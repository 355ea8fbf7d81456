module Core
  module ICalendar
    # Reads iCalendar and vCard text (RFC 5545 3.1, RFC 6350 3.2) as it is found in the world: forgiving about line
    # ends, folds, encoding and what is missing, and telling each oddity; strict where going on would mean guessing.
    class Reader
      MOST_BYTES = 20_000_000
      MOST_DEPTH = 12
      NAME = /\A[A-Za-z0-9-]+/
      PARAM = /\G;([A-Za-z0-9-]+)=((?:"[^"]*"|[^";:,]*)(?:,(?:"[^"]*"|[^";:,]*))*)/
      CARETS = {"^n" => "\n", "^^" => "^", "^'" => "\""}.freeze

      # `components` at the top, `warnings` sentences about what was forgiven.
      Read = Value.of(:components, :warnings)

      # @param bytes [String] the file as it came
      # @param wanted [String] what must stand at the top: VCALENDAR or VCARD
      # @raise [Invalid] code "unreadable", with details[:line]
      # @return [Read]
      def self.read(bytes, wanted: "VCALENDAR") = new(bytes, wanted).read

      def initialize(bytes, wanted)
        @bytes = bytes
        @wanted = wanted
        @warnings = []
        @top = []
        @stack = []
      end

      def read
        refuse("This file is larger than #{MOST_BYTES / 1_000_000} MB.", 0) if @bytes.bytesize > MOST_BYTES
        each_line { |text, number| line(text, number) }
        refuse("The file ends inside #{@stack.last.name}: it is not whole.", @last_line) if @stack.any?
        refuse(not_wanted, 1) if @top.empty?
        look_over if @wanted == "VCALENDAR"
        Read.new(components: @top, warnings: @warnings.uniq)
      end

      private

      # Unfolds bytes before decoding them, since a fold may stand inside a character (RFC 5545 3.1).
      def each_line(&block)
        bytes = @bytes.b
        warn("The file begins with a UTF-8 signature.") if bytes.delete_prefix!("\xEF\xBB\xBF".b)
        refuse(not_wanted, 1) unless bytes.match?(/\A\s*BEGIN:/in)
        warn("Lines end with a line feed only.") if bytes.include?("\n") && !bytes.include?("\r\n")
        text = decode(unfold(bytes))
        text.each_line(chomp: true).with_index(1) { |line, number| take(line, number, &block) }
      end

      # Folds become nothing; where one stood is not counted, so line numbers are those of content lines.
      def unfold(bytes) = bytes.gsub(/\r\n?|\n/n, "\n").gsub(/\n[ \t]/n, "")

      def decode(bytes)
        text = bytes.force_encoding(Encoding::UTF_8)
        return text if text.valid_encoding?

        warn("The file is not UTF-8; it was read as Windows-1252.")
        bytes.force_encoding(Encoding::Windows_1252).encode(Encoding::UTF_8, invalid: :replace, undef: :replace)
      end

      def take(line, number)
        @last_line = number
        return warn("The file has empty lines.") if line.strip.empty?

        yield line, number
      end

      def line(text, number)
        name = text[NAME] or refuse("Line #{number} is not readable: “#{Words.shorten(text, 60)}”.", number)
        params, value = params_and_value(text, name, number)
        case name = name.upcase
        when "BEGIN" then enter(value.strip.upcase, number)
        when "END" then leave(value.strip.upcase, number)
        else property(name, params, value, number)
        end
      end

      def params_and_value(text, name, number)
        at = name.length
        params = {}
        while (match = PARAM.match(text, at)) && match.begin(0) == at
          params[match[1].upcase] = match[2].scan(/"([^"]*)"|([^,]+)/).map { |quoted, plain| caret(quoted || plain) }
          at = match.end(0)
        end
        refuse("Line #{number} has no value: “#{Words.shorten(text, 60)}”.", number) unless text[at] == ":"
        [params, text[(at + 1)..]]
      end

      # RFC 6868
      def caret(text) = text.include?("^") ? text.gsub(/\^[n^']/, CARETS) : text

      def enter(name, number)
        refuse(not_wanted, number) if @stack.empty? && name != @wanted
        refuse("Line #{number}: components are nested too deep.", number) if @stack.size >= MOST_DEPTH

        component = Component.new(name)
        (@stack.last&.components || @top) << component
        @stack << component
      end

      def leave(name, number)
        entered = @stack.pop or refuse("Line #{number}: END:#{name} stands without its BEGIN.", number)
        refuse("Line #{number}: END:#{name} stands where END:#{entered.name} is expected.", number) unless entered.name == name
      end

      def property(name, params, value, number)
        component = @stack.last or refuse("Line #{number} stands outside of any component.", number)
        component.properties << Component::Property.new(name: name, params: params, value: value, line: number)
      end

      # RFC 5545 3.6: what a calendar must have. Missing parts change nothing for us, so they are only told.
      def look_over
        @top.each do |calendar|
          %w[VERSION PRODID].each { |name| warn("#{name} is missing.") unless calendar[name] }
          warn("DTSTAMP is missing.") if calendar.components.any? { |component| component.name == "VEVENT" && !component["DTSTAMP"] }
        end
      end

      def not_wanted
        return "This is not a vCard file." if @wanted == "VCARD"

        @bytes.b.match?(/\A\s*BEGIN:VCARD/in) ? "This is a vCard, not a calendar." : "This is not a calendar file (iCalendar, .ics)."
      end

      def warn(sentence) = @warnings << sentence

      def refuse(sentence, line)
        raise Invalid.new(sentence, code: "unreadable", line: line)
      end
    end
  end
end
