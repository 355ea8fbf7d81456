# Times the Skerry Buoy Trust has asked for, and hours in which others book with it. Everything is made up.
class DemoAsking
  TIMES = [[0, 14], [1, 9], [2, 15], [3, 13]].freeze
  # Who is asked for the dry-dock talk, and what they say of each time: s suits, p possible, c cannot.
  ANSWERS = {
    ines: ["sspp", nil], lars: ["ssc-", "On the water on Wednesday afternoon"], sunniva: ["ssps", nil],
    tomas: ["spss", nil], wen: ["scsp", "School run at nine"], rory: ["pccc", nil], petra: ["psp-", nil]
  }.freeze
  WORDS = {"s" => "suits", "p" => "possible", "c" => "cannot"}.freeze
  SILENT = %i[benedita gunnar].freeze
  VISITORS = [
    ["Nell Comeau", "nell@fundywatch.example", "Buoy 12", "It floats"],
    ["Odd Sandvik", "odd@sandvikslip.example", "The lamp of buoy 3", "It drifts"],
    ["Graça Mota", "graca@cabopilots.example", "Buoy 31", "It floats"]
  ].freeze

  # @param people [Hash{Symbol => String}] keys of people
  def initialize(people, clock)
    @people = people
    @clock = clock
    @now = clock.now
    @zone = Core::Zone["Europe/Oslo"]
  end

  def load
    @clock.now = @now - 26 * 3_600
    ask
    answer
    @clock.now = @now - 3 * 3_600
    open_hours
    book
    @clock.now = @now
  end

  private

  def key = Records::Key.make(@clock.now)

  # A Monday, at least a week ahead.
  def monday = @monday ||= (@now.to_date + 8..).find(&:monday?)

  def at(days, hour) = @zone.instant(Core::WallTime.at(monday + days, hour * 3_600))

  def ask
    @poll = key
    @times = TIMES.map { |days, hour| {id: key, starts_at: at(days, hour)} }
    UseCases::TimePolls.new(by: @people[:marit], clock: @clock).create(
      id: @poll, title: "A time for the dry-dock talk",
      words: "What the yard has found in the two hulls, and what next.",
      length_min: 60, time_zone: @zone.name, candidates: @times, shows: "all", tells: "all", call_kind: "fresh",
      closes_at: @zone.instant(Core::WallTime.at(@now.to_date + 4, 16 * 3_600)),
      people: (ANSWERS.keys + SILENT).map { |one|
        {person_id: @people[one], role: (SILENT.include?(one) || one == :rory) ? "optional" : "required"}
      }
    )
  end

  def answer
    ANSWERS.each_with_index do |(who, (words, comment)), i|
      @clock.now = @now - (24 - 3 * i) * 3_600
      said = words.chars.each_with_index.filter_map { |letter, j|
        {candidate_id: @times[j][:id], answer: WORDS[letter]} if WORDS[letter]
      }
      UseCases::PollAnswers.new(clock: @clock).keep(
        Loading::PollLink.open(@poll, @people[who], Loading::PollLink.token(@poll, @people[who]), now: @clock.now),
        answers: said, comment: comment, accepts: i.even?, suggestions: (who == :rory) ? [at(4, 16)] : []
      )
    end
    Records::TimePoll.where(id: @poll).update_all(seen_at: @now - 12 * 3_600)
  end

  def open_hours
    @open = key
    UseCases::OpenHours.new(by: @people[:marit], clock: @clock).create(
      id: @open, title: "Buoy clinic", words: "For skippers, yards and pilots with a question about one of our buoys.",
      after_words: "Second door on the quay; ring the brass bell.", time_zone: @zone.name, mode: "turns",
      lengths: [30, 60], step_min: 30, before_min: 0, after_min: 10, notice_min: 240, days_ahead: 60, most_per_day: 4,
      most_per_visitor: 3, listed: true, hosts: hosts, call_kind: "fresh",
      questions: [
        {kind: "short", text: "Which buoy is it about?", required: true},
        {kind: "choice", text: "How does it look?", required: false, choices: ["It floats", "It drifts", "It is gone"]}
      ]
    )
  end

  def hosts
    [
      {person_id: @people[:marit],
       week: {"mo" => [%w[13:00 16:00]], "we" => [%w[13:00 16:00]], "fr" => [%w[09:00 12:00]]}},
      {person_id: @people[:wen], week: {"tu" => [%w[09:00 12:00]], "th" => [%w[09:00 12:00]]}}
    ]
  end

  def book
    UseCases::Hosting.new(by: @people[:wen], clock: @clock).agree(
      id: Records::OpenHoursHost.find_by!(open_hours_id: @open, person_id: @people[:wen]).id
    )
    open = Records::OpenHours.includes(:held_place, hosts: {person: :days_off}).find(@open)
    free = Loading::FreeStarts.new(open, from: @now, to: @now + 21 * 86_400, now: @clock.now).starts(30)
    VISITORS.zip([free[2], free[free.size / 3], free[free.size / 2]]).each do |(name, email, *answers), start|
      next unless start

      UseCases::Bookings.new(clock: @clock).book(
        open, id: key, starts_at: Time.at(start.minute * 60).utc, length_min: 30, name: name, email: email,
        time_zone: "Europe/Oslo", answers: answers
      )
    end
  end
end
