require "strscan"

module Core
  module Asking
    # The words of a line in which somebody offers times, each with what it is. English, and as they write in Bergen.
    module PastedWords
      # `kind`: weekday (0 for Sunday), month, number, ordinal, four (digits), dotted and slashed ([first, second, year,
      # whether a dot ends it]), date ([year, month, day]), relative (days from today), clock, sign (of a clock), length
      # (minutes), joint ("," or "and"), to, between, for, at; `value` what it says.
      Word = Value.of(:kind, :value)
      # `half` "am" or "pm" where it is said; `whole` where no minutes are.
      Clock = Value.of(:hour, :minute, :half, :whole)

      STOP = '\.?(?![[:alnum:]])'.freeze
      MONTHS = %w[
        jan(?:uary|uar)? feb(?:ruary|ruar)? mar(?:ch|s)? apr(?:il)? (?:may|mai) jun[ei]? jul[yi]? aug(?:ust)?
        sep(?:t|tember)? o[ck]t(?:ober)? nov(?:ember)? de[cs](?:ember)?
      ].map { |name| /#{name}#{STOP}/i }.freeze
      WEEKDAYS = %w[
        (?:sun(?:day)?|søn(?:dag)?) (?:mon(?:day)?|man(?:dag)?) (?:tue(?:s|sday)?|tir(?:sdag)?)
        (?:wed(?:s|nesday)?|ons(?:dag)?) (?:thu(?:r|rs|rsday)?|tor(?:sdag)?) (?:fri(?:day)?|fre(?:dag)?)
        (?:sat(?:urday)?|lør(?:dag)?)
      ].map { |name| /(?:(?:this|coming) )?#{name}#{STOP}/i }.freeze
      HALF = '([ap])\.?m\b\.?'.freeze

      # In order: what may be taken for something else stands behind it.
      KINDS = {
        %r{(\d{4})([-/])(\d\d)\2(\d\d)(?!\d)(?:T(?=\d))?} => ->(m) { [:date, [m[1], m[3], m[4]].map(&:to_i)] },
        /(\d{1,2})-([[:alpha:]]{3,9})-(\d{4})(?!\d)/ => ->(m) { [:date, [m[3].to_i, month(m[2]), m[1].to_i]] },
        /(\d{1,3}) ?(?:m|min|mins|minutes)#{STOP}/i => ->(m) { [:length, m[1].to_i] },
        /(\d{1,2})\.?(\d\d)? ?#{HALF}/i => ->(m) { [:clock, clock(m[1], m[2], m[3])] },
        /(\d{1,2}):(\d\d)(?::00)?(?: ?#{HALF})?(?![\d:])/i => ->(m) { [:clock, clock(m[1], m[2], m[3])] },
        /(\d{1,2})h(\d\d)?(?![[:alnum:]])/i => ->(m) { [:clock, clock(m[1], m[2], nil)] },
        /(?:noon|midday)#{STOP}/i => ->(_) { [:clock, clock("12", "00", nil)] },
        %r{(\d{1,2})([./])(\d{1,2})(?:\2 ?(\d{4}|\d\d)(?![\d:.])|(\.)(?!\d))?(?![\d:/])} =>
          ->(m) { [(m[2] == "/") ? :slashed : :dotted, [m[1].to_i, m[3].to_i, year(m[4]), !m[5].nil?]] },
        /(\d{4})(?!\d)/ => ->(m) { [:four, m[1].to_i] },
        /(\d{1,2})(?:(?:st|nd|rd|th)#{STOP}|\.(?= ))/i => ->(m) { [:ordinal, m[1].to_i] },
        /(\d{1,2})(?!\d)/ => ->(m) { [:number, m[1].to_i] },
        /(today|tomorrow)#{STOP}/i => ->(m) { [:relative, m[1].casecmp?("today") ? 0 : 1] },
        Regexp.union(WEEKDAYS) => ->(m) { [:weekday, WEEKDAYS.index { |one| one.match?(m[0]) }] },
        Regexp.union(MONTHS) => ->(m) { [:month, month(m[0])] },
        /(?:h|hrs|hours|uhr|o'clock|o’clock)#{STOP}/i => ->(_) { [:sign, nil] },
        /-|(?:to|until|till)#{STOP}/i => ->(_) { [:to, nil] },
        /between#{STOP}/i => ->(_) { [:between, nil] },
        /for#{STOP}/i => ->(_) { [:for, nil] },
        %r{(,)|(?:and|or)#{STOP}|[&/]}i => ->(m) { [:joint, m[1] ? "," : "and"] },
        /(?:at|from|kl)#{STOP}|[@:]/i => ->(_) { [:at, nil] }
      }.freeze
      # What may stand around days and times and changes nothing.
      FILLER = /(?:(?:how|what) about|perhaps|maybe|either|then|also|i can do|could do|on|of|the)#{STOP}|[()]/i

      module_function

      # @param line [String] one space between words, and none around it
      # @return [Array<Word>, nil] nil where it holds something else
      def read(line)
        scanner = StringScanner.new(line.sub(/[.?! ]{1,5}\z/, ""))
        words = []
        until scanner.eos?
          next if scanner.skip(/ +/) || scanner.skip(FILLER)

          words << (word(scanner) or return)
        end
        parted(words)
      end

      def word(scanner)
        KINDS.each do |pattern, says|
          next unless scanner.scan(pattern)

          kind, value = says[scanner]
          return Word.new(kind: kind, value: value)
        end
        nil
      end

      # @return [Integer, nil] the place of the next word that parts nothing
      def next(words, place)
        place += 1 while %i[joint to at].include?(words[place]&.kind)
        place if place < words.size
      end

      # "7/8 December" is two days.
      def parted(words)
        words.each_with_index.flat_map do |one, i|
          next [one] unless one.kind == :slashed && words[i + 1]&.kind == :month && one.value[2].nil?

          first, second = one.value.first(2).map { |number| Word.new(kind: :number, value: number) }
          [first, Word.new(kind: :joint, value: "and"), second]
        end
      end

      def month(name) = MONTHS.index { |one| /\A#{one}\z/i.match?(name) }&.succ || 0

      def year(text) = text && ((text.length == 2) ? 2000 + text.to_i : text.to_i)

      def clock(hour, minute, half) =
        Clock.new(hour: hour.to_i, minute: minute.to_i, half: half && "#{half.downcase}m", whole: minute.nil?)
      private_class_method :word, :parted
    end
  end
end
