module Core
  module Sheet
    # Reads a line of the minutes as people type it: "Ines to order shackles by Friday" is an action with
    # owner and date, "Decided: …" a decision, anything else a note. A reading is an offer: it is shown
    # before it is kept and can be refused, so where a sentence is open to doubt it stays a note.
    class LineReader
      # `kind` is :note, :decision or :action; `text` what is to be kept; `owner_ids` who was named;
      # `doubtful` the names that fit several people, as {name => [person ids]}; `due_on` a Date or nil.
      Reading = Value.of(:kind, :text, :owner_ids, :due_on, :doubtful)

      # Somebody who can be named. `name` as they are called in full.
      Person = Value.of(:id, :name)

      DECISION = /
        \A(?:(?:we[ ]|it[ ]was[ ]|it[ ]is[ ])?(?:decided|agreed|resolved)
        (?:\s*[:–—-]\s*|\s+(?=that\b|to\b|not[ ]to\b|on\b))|decision\s*[:–—-]\s*)
      /ix
      ACTION = /\A(?:action|to do|ap)\b(?:\s+(?:for|on)\b)?\s*[:–—-]?\s*/i
      EVERYONE = /\A(?:everyone|everybody|all)\s+(?:is |are )?to\s+/i
      # "Ines has moved", "Ines will be away": they state, they do not ask for work.
      STATING = /\A(?:be|been|have|has|not|probably|only|still|already)\b/i
      # What follows "to" when it is a direction and not a deed.
      NO_DEED = /
        \A(?:the|a|an|his|her|their|our|my|your|its|this|that|these|those|date|him|them|us|me|no|some|both|all|
        be|and|\d)\b
      /ix
      DASH = /\s+[–—-]+\s+/

      # @param people [Array<Person>] who can be named, those of the series
      # @param today [Date] the day of the meeting, from which "Friday" is counted
      # @param next_meeting_on [Date, nil] what "next meeting" means
      def initialize(people:, today:, next_meeting_on: nil)
        @people = people
        @names = Names.new(people)
        @dates = DateReader.new(today: today, next_meeting_on: next_meeting_on)
      end

      # @return [Reading]
      def read(text)
        text = text.to_s.strip.gsub(/\s+/, " ")
        decision(text) || asked(text) || everyone(text) || marked(text) || assigned_behind(text) || note(text)
      end

      private

      def note(text) = Reading.new(kind: :note, text: text, owner_ids: [], due_on: nil, doubtful: {})

      def decision(text)
        match = DECISION.match(text) or return
        rest = match.post_match.sub(/\A(?:that|to)\s+/i, "")
        return if rest.empty?

        note(capitalize(rest)).with(kind: :decision)
      end

      # "Ines to order …", "Ines and Lars will order …"
      def asked(text)
        return if text.end_with?("?")

        found = @names.at_start(text) or return
        match = /\A,?\s*(to|will|shall|must|has to|have to|needs to|need to|is to|are to)\s+/i.match(found.rest) or
          return
        deed = match.post_match
        return unless deed.match?(/\A[[:lower:]]/) && !deed.match?(STATING)
        return if match[1].match?(/to\z/i) && deed.match?(NO_DEED)

        action(deed, found)
      end

      def everyone(text)
        match = EVERYONE.match(text) or return
        return if text.end_with?("?") || match.post_match.match?(NO_DEED) || match.post_match.match?(STATING)

        action(match.post_match, Names::Found.new(owner_ids: @people.map(&:id), doubtful: {}, rest: ""))
      end

      # "Action: …", "Action Ines: …"
      def marked(text)
        match = ACTION.match(text) or return
        rest = match.post_match
        return if rest.empty? || !match[0].match?(/[:–—-]\s*\z/) && !@names.at_start(rest)

        named = @names.at_start(rest)
        return asked(rest) || assigned_behind(rest) || action(rest, Names::NOBODY) unless named

        asked(rest) || action(named.rest.sub(/\A\s*[:,–—-]\s*/, "").sub(/\A(?:is |are )?to\s+/i, ""), named)
      end

      # "Ask the port for a berth – Sunniva, 12 May", "… (Sunniva, by Friday)"
      def assigned_behind(text)
        match = /\A(?<deed>.+)#{DASH}(?<who>[^–—]+)\z/o.match(text) ||
          /\A(?<deed>.+?)\s*\((?<who>[^()]+)\)\.?\z/.match(text) or return
        found = @names.at_start(match[:who]) or return
        rest = found.rest.sub(/\A\s*[,:]?\s*/, "").sub(/\.\z/, "")
        due = rest.empty? ? nil : @dates.alone(rest)
        return unless rest.empty? || due

        action(match[:deed], found, due)
      end

      def action(deed, found, due = nil)
        rest, read_due = due ? [deed, due] : @dates.take(deed)
        rest = rest.sub(/[\s,;.]+\z/, "")
        return if rest.empty?

        Reading.new(
          kind: :action, text: capitalize(rest), owner_ids: found.owner_ids, due_on: read_due,
          doubtful: found.doubtful
        )
      end

      def capitalize(text) = text.sub(/\A[[:lower:]]/, &:upcase)
    end
  end
end
