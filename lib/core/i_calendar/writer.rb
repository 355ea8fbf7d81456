module Core
  module ICalendar
    # Writes iCalendar (RFC 5545): CRLF, lines folded at 75 octets between characters, text escaped,
    # nothing that could begin a line of its own. Strict: what does not fit the format raises.
    class Writer
      LINE_OCTETS = 75
      # Besides controls, what programs take for the end of a line (Unicode 5.8).
      CONTROL = /[\u0000-\u0008\u000A-\u001F\u007F\u0085\u2028\u2029]/
      LINE_END = /\r\n?|[\u0085\u2028\u2029]/

      def initialize
        @lines = []
      end

      # @yield the lines inside
      def component(name)
        @lines << "BEGIN:#{name}"
        yield self
        @lines << "END:#{name}"
        self
      end

      # A value already in its written form: dates, numbers, enumerations, URIs.
      def raw(name, value, **params)
        value = value.to_s
        raise ArgumentError, "#{name} holds a control character" if value.match?(CONTROL)

        written = params.map { |key, given| ";#{key.to_s.upcase.tr("_", "-")}=#{param(given)}" }
        @lines << "#{name}#{written.join}:#{value}"
        self
      end

      # Free text; nil and "" are left out.
      def text(name, value, **params)
        return self if value.nil? || value.empty?

        escaped = value.gsub(LINE_END, "\n").gsub(/[\\;,]/) { |char| "\\#{char}" }.gsub("\n", "\\n").gsub(CONTROL, "")
        raw(name, escaped, **params)
      end

      # A calendar user by mail address.
      def user(name, address, **params) = raw(name, "mailto:#{address.gsub(/[\s<>"]/, "")}", **params)

      # Times on a zone's wall.
      def walls(name, walls, zone) =
        raw(name, walls.map { |wall| wall.strftime("%Y%m%dT%H%M%S") }.join(","), tzid: zone.name)

      def instant(name, time) = raw(name, Writer.utc(time))

      def self.utc(time) = time.getutc.strftime("%Y%m%dT%H%M%SZ")

      def to_s = @lines.map { |line| "#{fold(line)}\r\n" }.join

      private

      # Several values of one parameter stand side by side (RFC 5545 3.2).
      def param(value) = value.is_a?(Array) ? value.map { |one| one_param(one) }.join(",") : one_param(value)

      # RFC 6868 carries quotes and line ends in parameters; everything else that could end one is quoted.
      def one_param(value)
        clean = value.to_s.gsub("^", "^^").gsub("\"", "^'").gsub(LINE_END, "\n").gsub("\n", "^n").gsub(CONTROL, "")
        clean.match?(/[:;,]/) ? "\"#{clean}\"" : clean
      end

      def fold(line)
        return line if line.bytesize <= LINE_OCTETS

        folded = +""
        room = LINE_OCTETS
        line.each_char do |char|
          if char.bytesize > room
            folded << "\r\n "
            room = LINE_OCTETS - 1
          end
          folded << char
          room -= char.bytesize
        end
        folded
      end
    end
  end
end
