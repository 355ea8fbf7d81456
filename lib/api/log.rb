module Api
  # What the web server writes down: a line for each refusal, and where it broke for our own faults. Neither paths nor
  # what was sent: they hold addresses and private links.
  module Log
    SECRETS = [
      [/[^\s"<>@]+@[^\s"<>@]+/, "…@…"],
      [/\b[0-9a-zA-Z_-]{24,}\b/, "…"],
      [/'(?:[^'\\]|\\.){12,}'/, "'…'"]
    ].freeze
    FRAMES = 12

    class << self
      attr_accessor :io

      def refused(status, code, operation) = line("#{status} #{code} #{operation || "-"}")

      def broken(error, operation)
        words = SECRETS.reduce(
          error.message.to_s.dup.force_encoding("UTF-8").scrub.lines.first.to_s.strip[0, 300]
        ) { |text, (pattern, mask)| text.gsub(pattern, mask) }
        line(
          "500 #{error.class} #{operation || "-"} #{words}\n  " \
            "#{(error.backtrace || []).reject { |frame| frame.include?("/gems/") }.first(FRAMES).join("\n  ")}"
        )
      end

      private

      # A disk that is full is no reason to answer otherwise.
      def line(words)
        io&.puts("#{Clock.now.iso8601} #{words}")
      rescue SystemCallError, IOError
        nil
      end
    end

    self.io = Settings.test? ? nil : $stderr
  end
end
