module Mailing
  # What minutes say, whatever they are written on: a mail, a page of paper, a file of text.
  class MinutesDocument
    # `number` of the topic or nil; `rows` of [kind in words or nil, words].
    Section = Core::Value.of(:number, :title, :note, :rows)
    KINDS = {"note" => nil, "decision" => "Decided", "action" => "Action"}.freeze
    VERDICTS = {"done" => "done", "drop" => "dropped", "keep" => "kept"}.freeze
    STATES = {
      "planned" => "Agenda", "in_session" => "Draft minutes", "closed" => "Draft minutes", "issued" => "Minutes",
      "called_off" => "Called off"
    }.freeze
    NOBODY = "nobody yet".freeze
    # Those who left are said to have been there until then.
    HERE = Core::Sheet::Attendance::THERE.map(&:to_s).freeze

    # @param sheet [Hash] as a sheet is shown, or was frozen: nothing but plain values, with symbols as keys
    # @param state [String, nil] of the meeting, when it is another than the frozen one
    # @param version [Hash, nil] number, reason and approved_on, a Date, of what was issued
    # @param approves [Array<String>] days of the meetings whose minutes were approved at this one
    def initialize(sheet, state: nil, version: nil, approves: [])
      @sheet = sheet
      @state = state || sheet[:state]
      @version = version
      @approves = approves
    end

    attr_reader :state

    def id = @sheet[:id]

    def title = @sheet[:series_title]

    # The day it was held, or is planned for.
    def date = (other_day? ? begun : start).date

    # When they were last written on: the minutes as issued, or the meeting as it stands.
    def stamp = Time.iso8601(@sheet[:issued_at] || @sheet[:closed_at] || @sheet[:starts_at])

    def kind = STATES.fetch(@state)

    def day = Core::Words.day(date)

    # Of the file it is kept in, without its ending.
    def name = Core::Paper.safe_name("#{title}, #{kind.downcase} #{date.iso8601}".tr("/\\", "-"))

    # @return [Array<Array(String, String)>] what it was, where, when, and who was there
    def facts
      [
        ["Meeting", number], ["When", moment], ["Planned for", planned], ["Held", held], ["Where", where],
        ["Chair", @sheet.dig(:chair, :name)],
        ["Minutes by", @sheet.dig(:keeper, :name)], *attendance, ["Quorum", quorum], ["Approved here", approved_here],
        ["Version", version], ["Approved", @version&.dig(:approved_on)&.then { |on| Core::Words.day(on) }],
        ["Files", files], ["Next meeting", following]
      ].select(&:last)
    end

    # @return [Array<Section>]
    def sections
      left = [*reviewed, *rows(@sheet[:left_over_lines])]
      topics = @sheet[:topics].map.with_index(left.empty? ? 1 : 2) do |topic, number|
        section(topic, topic[:number] || number)
      end
      left.empty? ? topics : [Section.new(number: 1, title: "Left over", note: nil, rows: left), *topics]
    end

    # Who does what by when: what was raised here, and what is still left over.
    # @return [Array<Array(String, String, String)>]
    def actions
      raised = lines.select { |line| line[:action] }.map { |line| [line[:text], *whose(line[:action])] }
      kept = @sheet[:left_over].select { |action| action[:state] == "open" }
      kept.map { |action| [action[:text], *whose(action)] } + raised
    end

    # What somebody has to do, by the same two lists.
    # @return [Array<Array(String, String)>] what, and by when
    def actions_of(person_id)
      raised = lines.select { |line| line[:action] }.map { |line| [line[:text], line[:action]] }
      kept = @sheet[:left_over].select { |action| action[:state] == "open" }.map { |action| [action[:text], action] }
      mine = (kept + raised).select { |_, action| action[:owners].any? { |owner| owner[:id] == person_id } }
      mine.map { |what, action| [what, whose(action).last] }
    end

    # All that is said, so that two versions can be compared.
    # @return [Array<Core::Sheet::MinutesDifference::Said>]
    def said_in_all
      facts.map { |name, words| said_at(name, name, words) } +
        @sheet[:left_over_lines].map { |line| said_line("Left over", line) } +
        @sheet[:topics].flat_map do |topic|
          title = [topic[:title], left(topic)&.then { |words| "(#{words})" }].compact.join(" ")
          head = said_at(topic[:id], "Topics", title)
          [head, *topic[:lines].map { |line| said_line(topic[:title], line) }]
        end
    end

    private

    def number = @sheet[:meeting_number]&.then { |number| "number #{number} of this series" }

    def files
      names = [*@sheet[:files], *@sheet[:closed_files]]
      names.join(", ") if names.any?
    end

    def following
      at = @sheet.dig(:next_meeting, :local_start) or return
      Core::Words.at(Core::WallTime.parse(at))
    end

    def start = Core::WallTime.parse(@sheet[:local_start])

    def begun = @sheet[:begun_at] && wall(@sheet[:begun_at])

    # Whether it was held on another day than planned.
    def other_day?
      interval = Core::Interval[*@sheet.values_at(:starts_at, :ends_at).map { |time| Time.iso8601(time) }]
      at = @sheet[:begun_at] && Time.iso8601(@sheet[:begun_at])
      !at.nil? && Core::Sheet::Attendance.held(interval, at) != interval && begun.date != start.date
    end

    def planned = (Core::Words.at(start) if other_day?)

    def moment
      return [day, "#{@sheet[:zone_city]} time"].join(", ") if other_day?

      ends = Core::WallTime.parse(@sheet[:local_end])
      "#{day}, #{Core::Words.clock(start)}–#{Core::Words.clock(ends)} #{@sheet[:zone_city]} time"
    end

    def held
      begun, closed = @sheet.values_at(:begun_at, :closed_at)
      begun && closed && "#{clock(begun)}–#{clock(closed)}"
    end

    def clock(instant) = Core::Words.clock(wall(instant))

    def wall(instant) = Core::Zone[@sheet[:time_zone]].wall(Time.iso8601(instant))

    def where = @sheet[:place]

    def attendance
      return [] if @state == "planned"

      [["Here", said(HERE)], ["Apologies", said(%w[apologies])], ["Absent", said(%w[absent])]]
    end

    def said(states)
      names = @sheet[:people].select { |person| states.include?(person[:attendance]) }.map { |person| name_of(person) }
      names.join(", ") unless names.empty?
    end

    def name_of(person)
      said = [*times_of(person), person[:instead_of]&.then { |name| "instead of #{name}" }].compact
      said.empty? ? person[:name] : "#{person[:name]} (#{said.join(", ")})"
    end

    # Minutes frozen before several times were kept have one moment.
    def times_of(person)
      call = "on the call" if person[:attendance] == "on_call"
      return [call, person[:attendance_words]].compact if person.key?(:attendance_words)

      at, verb = person[:attendance_at], {"on_call" => "from", "late" => "from", "left" => "until"}[person[:attendance]]
      [call, ("#{verb} #{at}" if at && verb)].compact
    end

    def quorum
      needed = @sheet[:quorum] or return
      return needed.to_s if @state == "planned"

      "#{needed}, #{@sheet[:quorate] ? "met" : "not met"}"
    end

    def approved_here = ("Minutes of #{Core::Words.list(@approves)}" if @approves.any?)

    def version
      return unless @version && @version[:number] > 1

      "#{@version[:number]}, corrected: #{@version[:reason]}"
    end

    # A standing topic is not put off: the next sheet has its own.
    def left(topic)
      return unless topic[:put_off]

      topic[:standing] ? "not taken" : "put off"
    end

    def section(topic, number)
      note = [
        topic.dig(:presenter, :name), ("for decision" if topic[:purpose] == "decision"),
        ("in writing, taken as read" if topic[:in_writing]), left(topic)
      ].compact.join(", ")
      beneath = ((@state == "planned" || topic[:in_writing]) && topic[:text]) ? [[nil, topic[:text]]] : []
      Section.new(
        number: number, title: topic[:title], note: note.empty? ? nil : note, rows: beneath + rows(topic[:lines])
      )
    end

    def lines = @sheet[:left_over_lines] + @sheet[:topics].flat_map { |topic| topic[:lines] }

    def said_line(place, line)
      said_at(line[:id], place, [KINDS.fetch(line[:kind]), words_of(line)].compact.join(": "))
    end

    def said_at(key, place, words) = Core::Sheet::MinutesDifference::Said.new(key: key, place: place, words: words)

    def rows(lines) = lines.map { |line| [kind_of(line), words_of(line)] }

    # A motion that was not carried decides nothing; what is decided has its number in the register.
    def kind_of(line)
      return "Motion" if %w[lost tied].include?(line.dig(:motion, :outcome))

      number = @sheet[:decision_numbers]&.dig(line[:id].to_sym) if line[:kind] == "decision"
      below = "below quorum" if @sheet[:below_quorum]&.include?(line[:id])
      words = [[KINDS.fetch(line[:kind]), number].compact.join(" "), below].compact.join(", ")
      words unless words.empty?
    end

    def words_of(line)
      return [line[:text], moved(line[:motion])].compact.join("\n") unless line[:action]

      owners, due = whose(line[:action])
      [line[:text], "– #{owners}", ("by #{due}" unless due.empty?)].compact.join(" ")
    end

    def moved(motion)
      return unless motion

      by = %i[proposer seconder].filter_map { |who| motion[who] && motion[who][:name] }
      said = %w[Proposed seconded].zip(by).filter_map { |verb, name| "#{verb} by #{name}" if name }
      [said.join(", "), motion[:words]].reject { |words| words.to_s.empty? }.join("; ").then { |all| "#{all}." }
    end

    def whose(action)
      due = action[:due_on] && Date.iso8601(action[:due_on]).strftime("%-d %B %Y")
      owners = action[:owners].map { |owner| owner[:name] }
      [owners.empty? ? NOBODY : owners.join(", "), due.to_s]
    end

    def became(action) = VERDICTS.fetch(action.dig(:review, :verdict), "kept")

    def handed(action) = action[:reason].to_s.sub(/\A[[:upper:]]/, &:downcase)

    def reviewed
      @sheet[:left_over].map do |action|
        verdict = (action[:state] == "handed_over") ? handed(action) : became(action)
        carried = "carried #{action[:carried]} times" if verdict == "kept" && action[:carried] > 1
        owners, due = whose(action)
        about = [owners, ("by #{due}" unless due.empty? || verdict != "kept"), verdict, carried]
        said = "– #{about.compact.reject(&:empty?).join(", ")}"
        [nil, ["#{action[:text]} #{said}", action.dig(:review, :word)].compact.join(": ")]
      end
    end
  end
end
