module Core
  module ICalendar
    # Reads iCalendar and vCard text (RFC 5545 3.1, RFC 6350 3.2) as it is found in the world: forgiving about line
    # ends, folds, encoding and what is missing, and telling each oddity; strict where going on would mean guessing.
    class Reader
      MOST_BYTES = 5_000_000
      MOST_DEPTH = 12
      NAME = /\A[A-Za-z0-9-]+\z/
      PARAM = /\G;([A-Za-z0-9-]+)=((?:"[^"]*"|[^";:,]*)(?:,(?:"[^"]*"|[^";:,]*))*)/
      CARETS = {"^n" => "\n", "^^" => "^", "^'" => "\""}.freeze
      NO_PARAMS = {}.freeze
      # What anything here asks for. The rest is looked at only as far as it must be a line.
      WANTED = %w[
        METHOD
        VERSION
        PRODID
        UID
        DTSTAMP
        DTSTART
        DTEND
        DUE
        DURATION
        RRULE
        RDATE
        EXDATE
        RECURRENCE-ID
        SEQUENCE
        STATUS
        TRANSP
        SUMMARY
        LOCATION
        ORGANIZER
        ATTENDEE
        COMMENT
        DESCRIPTION
        URL
        CONFERENCE
        FREEBUSY
        TZID
        TZOFFSETFROM
        TZOFFSETTO
        TZNAME
        FN
        N
        EMAIL
        TZ
        TEL
        CATEGORIES
      ].to_set.freeze

      # `components` at the top, `warnings` sentences about what was forgiven.
      Read = Value.of(:components, :warnings)

      # @param bytes [String] the file as it came
      # @param wanted [String] what must stand at the top: VCALENDAR or VCARD
      # @param budget [Budget] what reading may cost
      # @raise [Invalid] code "unreadable", with details[:line], or "too-much-work"
      # @return [Read]
      def self.read(bytes, wanted: "VCALENDAR", budget: Budget.new) = new(bytes, wanted, budget).read

      # What is no such file at all is said without reading it. @raise [Invalid] code "unreadable"
      def self.refuse_other(bytes, wanted: "VCALENDAR") = new(bytes, wanted, nil).refuse_other

      def initialize(bytes, wanted, budget)
        @bytes = bytes
        @wanted = wanted
        @budget = budget
        @warnings = []
        @top = []
        @stack = []
        @names = {}
      end

      def read
        refuse_other
        each_line { |text, number| line(text, number) }
        refuse("The file ends inside #{@stack.last.name}: it is not whole.", @last_line) if @stack.any?
        refuse(not_wanted, 1) if @top.empty?
        look_over if @wanted == "VCALENDAR"
        Read.new(components: @top, warnings: @warnings.uniq)
      end

      def refuse_other
        refuse("This file is larger than #{MOST_BYTES / 1_000_000} MB.", 0) if @bytes.bytesize > MOST_BYTES
        refuse(not_wanted, 1) unless @bytes.b.match?(/\A(?:\xEF\xBB\xBF)?\s*BEGIN:\s*#{@wanted}\b/in)
      end

      private

      # Unfolds bytes before decoding them, since a fold may stand inside a character (RFC 5545 3.1).
      def each_line
        bytes = @bytes.b
        warn("The file begins with a UTF-8 signature.") if bytes.delete_prefix!("\xEF\xBB\xBF".b)
        warn("Lines end with a line feed only.") if bytes.include?("\n") && !bytes.include?("\r\n")
        number = 0
        decode(unfold(bytes)).each_line(chomp: true) do |line|
          @last_line = number += 1
          @budget.spend(Budget::LINE)
          line.match?(/\S/) ? yield(line, number) : warn("The file has empty lines.")
        end
      end

      # Folds become nothing; where one stood is not counted, so line numbers are those of content lines.
      def unfold(bytes)
        bytes.gsub!("\r\n", "\n")
        bytes.tr!("\r", "\n") if bytes.include?("\r")
        ["\n ", "\n\t"].each { |fold| bytes.gsub!(fold, "") if bytes.include?(fold) }
        bytes
      end

      def decode(bytes)
        text = bytes.force_encoding(Encoding::UTF_8)
        return text if text.valid_encoding?

        warn("The file is not UTF-8; it was read as Windows-1252.")
        bytes.force_encoding(Encoding::Windows_1252).encode(Encoding::UTF_8, invalid: :replace, undef: :replace)
      end

      # A line of an event that cannot be read spoils that event alone.
      def line(text, number)
        colon = text.index(":")
        semicolon = text.index(";")
        bare = colon && (semicolon.nil? || semicolon > colon)
        at = bare ? colon : semicolon
        name = at && name(text[0, at])
        return spoil("Line #{number} is not readable: “#{Words.shorten(text, 60)}”.", number) unless name
        return if !WANTED.include?(name) && name != "BEGIN" && name != "END"

        params, value = bare ? [NO_PARAMS, text[(colon + 1)..]] : params_and_value(text, at)
        return spoil("Line #{number} has no value: “#{Words.shorten(text, 60)}”.", number) unless value

        take(name, params, value, number)
      end

      # Names come again and again; each is checked once. @return [String, nil] in capitals; nil when it is none
      def name(text) =
        @names.fetch(text) { @names[text] = NAME.match?(text) ? text.upcase : nil if @names.size < 1_000 }

      def take(name, params, value, number)
        case name
        when "BEGIN" then enter(value.strip.upcase, number)
        when "END" then leave(value.strip.upcase, number)
        else property(name, params, value, number)
        end
      end

      def params_and_value(text, at)
        params = {}
        while (match = PARAM.match(text, at)) && match.begin(0) == at
          params[match[1].upcase] = match[2].scan(/"([^"]*)"|([^,]+)/).map { |quoted, plain| caret(quoted || plain) }
          at = match.end(0)
          @budget.spend(Budget::PROPERTY)
        end
        [params, (text[(at + 1)..] if text[at] == ":")]
      end

      # RFC 6868
      def caret(text) = text.include?("^") ? text.gsub(/\^[n^']/, CARETS) : text

      def enter(name, number)
        refuse(not_wanted, number) if @stack.empty? && name != @wanted
        refuse("Line #{number}: components are nested too deep.", number) if @stack.size >= MOST_DEPTH

        @budget.spend(Budget::COMPONENT)
        component = Component.new(name, number)
        (@stack.last&.components || @top) << component
        @stack << component
      end

      def leave(name, number)
        entered = @stack.pop or refuse("Line #{number}: END:#{name} stands without its BEGIN.", number)
        unless entered.name == name
          refuse("Line #{number}: END:#{name} stands where END:#{entered.name} is expected.", number)
        end
      end

      def property(name, params, value, number)
        component = @stack.last or refuse("Line #{number} stands outside of any component.", number)
        @budget.spend(Budget::PROPERTY)
        component.add(Component::Property.new(name: name, params: params, value: value, line: number))
      end

      def spoil(sentence, number)
        component = @stack.find { |one| one.name == "VEVENT" } or refuse(sentence, number)
        component.fault ||= sentence
      end

      # RFC 5545 3.6: what a calendar must have. Missing parts change nothing for us, so they are only told.
      def look_over
        @top.each do |calendar|
          %w[VERSION PRODID].each { |name| warn("#{name} is missing.") unless calendar[name] }
          if calendar.components.any? { |component| component.name == "VEVENT" && !component["DTSTAMP"] }
            warn("DTSTAMP is missing.")
          end
        end
      end

      def not_wanted
        return "This is not a vCard file." if @wanted == "VCARD"

        if @bytes.b.match?(/\A\s*BEGIN:VCARD/in)
          "This is a vCard, not a calendar."
        else
          "This is not a calendar file (iCalendar, .ics)."
        end
      end

      def warn(sentence) = @warnings << sentence

      def refuse(sentence, line)
        raise Invalid.new(sentence, code: "unreadable", line: line)
      end
    end
  end
end
