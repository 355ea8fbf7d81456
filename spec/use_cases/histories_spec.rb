require_relative "../app_helper"

# A property, not examples: whatever happens to a series, the calendar of each invited person, which knows nothing but
# the mails, holds the same meetings as ours once they are told; however late, twice or out of order the mails arrive.
# The model of that calendar is Core::Invitation::Entry, checked by itself against RFC 5546's conversations. And the
# words of each mail say what happened: the kind in the subject, each date that was and each that is, and why. Fixed
# seed; 10 histories here, 300 by
# `bin/bench histories`.
RSpec.describe "Random histories of a series" do
  histories = Integer(ENV.fetch("HISTORIES", "10"))
  steps = 7

  # Keeps what the outbox hands over.
  let(:tray) do
    Object.new.tap do |post|
      post
        .define_singleton_method(:deliver) { |to:, source:, **| (@taken ||= []) << [to, source] }
        .then { post.define_singleton_method(:take) { (@taken || []).tap { @taken = [] } } }
    end
  end

  def mails
    nil while UseCases::Outbox.new(clock: clock).deliver(tray).positive?
    tray.take.map { |to, source| [to, ::Mail.new(source)] }
  end

  def calendars_in(mails)
    mails.filter_map do |to, mail|
      part = mail.all_parts.find { |one| one.mime_type == "text/calendar" }
      [to, Core::Invitation::Message.read(part.decoded)] if part
    end
  end

  # What a reader must find in the mail, from what they were told before and what holds now; worked out apart from the
  # code that writes it. @return [Array<String>] what is missing
  def missing_words(mail, told, member)
    now = member ? ours : []
    subject = if ours.empty? then "Called off"
    elsif !member then "You need not come"
    elsif told.nil? || told == :taken_off then "Invitation"
    else (told == :called_off) ? "Taking place after all" : "Changed"
    end
    off_for = ["No money", "Storm", "Harbour closed"].find { |reason| reason_for?(reason) }
    expected = (subject == "Called off") ? [off_for].compact : []
    text = mail.text_part.decoded.gsub(/\s+/, " ")
    expected += date_words(told, now) if subject == "Changed" && !text.include?(" When: ")
    off = %w[Called You].include?(subject.split.first)
    expected += off_words unless off
    [
      (subject unless mail.subject.start_with?("#{subject}: ")), *expected.reject { |words| text.include?(words) },
      *(miscounted(mail) unless off),
      ("no link" if off && text.include?("http")), ("asked" if off && text.include?("asked to come"))
    ].compact
  end

  def reason_for?(reason) =
    Records::Meeting
      .where(series_id: @series, state: "called_off", called_off_reason: reason)
      .where("ends_at > ?", clock.now)
      .exists?

  # Every date to come that is called off by itself stands there with its own reason.
  def off_words
    off = Records::Meeting.where(series_id: @series, state: "called_off", called_off_with_run: false)
      .where("starts_at > ?", clock.now).in_order
    off.flat_map { |meeting| [meeting.called_off_reason, meeting.original_wall.strftime("%-d")] }.uniq
  end

  # How many meetings the sentence speaks of: "4 more meetings", "2 Mondays until …", dates that are named.
  def miscounted(mail)
    sentence = mail.text_part.decoded[/^When +(.*)/, 1]
    named = sentence.scan(/(?<!last on )\b\w+day \d+ \w+ \d{4},? (?:\d\d:|at )/).size
    told = sentence.start_with?("Once") ? 1 : named + sentence.scan(/(\d+) (?:more )?(?:meeting|date|\w+day)/).sum {
      _1[0].to_i
    }
    "#{told} told, not #{ours.size}: #{sentence}" unless told == ours.size
  end

  # Each date that is no more and each that is new; of very many, not all are named.
  def date_words(told, now)
    changed = (told - now).select { |starts, _| starts > clock.now.to_i } | (now - told)
    return [] if changed.size > Core::Invitation::Difference::MOST_NAMED

    changed.map do |starts, _|
      Core::Zone["Europe/Oslo"].wall(Time.at(starts)).strftime("%A %-d %B %Y, %H:%M Oslo time")
    end
  end

  # Delivered out of order, some of them twice: later messages outrank earlier ones, so the order must not matter.
  def deliver(calendars, messages, random)
    (messages + messages.sample(messages.size / 3, random: random)).shuffle(random: random).each do |to, message|
      (calendars[to] ||= Core::Invitation::Entry.new(:attendee)).take(message, sender: Settings.mail_from)
    end
  end

  def ours =
    Records::Meeting
      .where(series_id: @series)
      .where.not(state: "called_off")
      .where("ends_at > ?", clock.now)
      .in_order
      .map { |meeting| [meeting.starts_at.to_i, meeting.ends_at.to_i] }

  def theirs(entry) =
    entry.instances(clock.now, clock.now + 500 * 86_400).map { |instance| [instance.starts_s, instance.ends_s] }

  def coming =
    Records::Meeting.where(series_id: @series, state: "planned").where("starts_at > ?", clock.now).in_order.to_a

  # By a rule, as a single meeting, or as what a poll has come to.
  def begun(number)
    return from_poll(number) if number % 4 == 3

    rule = ["FREQ=WEEKLY;BYDAY=MO;COUNT=6", "FREQ=MONTHLY;BYDAY=1MO;COUNT=5", nil][number % 4]
    series(@marit, {required: @people}, rule: rule, title: "History #{number}")
  end

  def from_poll(number)
    poll, candidate = key, key
    use(UseCases::TimePolls, @marit).create(
      id: poll, title: "History #{number}", length_min: 45, time_zone: "Europe/Oslo",
      candidates: [{id: candidate, starts_at: clock.now.floor + 12 * 86_400}],
      people: @people.map { |id| {person_id: id, role: "required"} },
      **((number % 8 == 3) ? {outcome: "series", rule: "FREQ=WEEKLY;COUNT=4"} : {})
    )
    use(UseCases::PollSettling, @marit).settle(id: poll, candidate_id: candidate, key: key, tell: false)
    mails # those of the poll are no part of the history
    Records::TimePoll.find(poll).made_series_id
  end

  def act(random)
    case random.rand(10)
    when 0, 1
      move(coming.sample(random: random), random)
    when 2
      coming.sample(random: random)&.then { |meeting| state(meeting.id, @marit, "called_off", reason: "Storm") }
    when 3
      Records::Meeting
        .where(series_id: @series, state: "called_off")
        .to_a
        .sample(random: random)
        &.then { |meeting| state(meeting.id, @marit, "planned") unless Records::Series.find(@series).ended_from }
    when 4
      change_run(random)
    when 5
      set_people(@people.sample(random.rand(4), random: random))
    when 6
      coming
        .sample(random: random)
        &.then do |meeting|
          use(UseCases::SeriesRun, @marit).call_off(
            series_id: @series, reason: "No money", from_meeting_id: meeting.id
          )
        end
    when 7
      use(UseCases::SeriesRun, @marit).bring_back(@series)
    when 8
      pause(coming.sample(random: random), random)
    else
      use(UseCases::Series, @marit).then { |series| change_title(series, "Round #{random.rand(100)}") }
    end
  rescue Core::Invalid, Core::Conflict
    nil # what is refused, such as a time that is past, changes nothing
  end

  def pause(meeting, random)
    return unless meeting

    from = Core::Zone["Europe/Oslo"].wall(meeting.starts_at).date
    use(UseCases::SeriesEnding, @marit).pause(
      series_id: @series, from_day: from.iso8601, until_day: (from + random.rand(15)).iso8601, reason: "Harbour closed"
    )
  end

  def move(meeting, random)
    return unless meeting

    wall =
      Core::Zone["Europe/Oslo"].wall(meeting.starts_at) + (random.rand(-2..3) * 86_400 + random.rand(-3..3) * 3_600)
    use(UseCases::MeetingChanges, @marit).move(
      meeting_id: meeting.id, version: meeting.lock_version, local_start: wall.to_s,
      length_min: 30 + random.rand(3) * 15
    )
  end

  def change_run(random)
    from = coming.sample(random: random) or return
    wall = Core::Zone["Europe/Oslo"].wall(from.starts_at) + 86_400 * random.rand(1..5)
    code = %w[SU MO TU WE TH FR SA][wall.date.wday]
    rule = [
      "FREQ=WEEKLY;BYDAY=#{code};COUNT=#{2 + random.rand(5)}", "FREQ=WEEKLY;INTERVAL=2;BYDAY=#{code};COUNT=4", nil
    ].sample(random: random)
    dates = rule ? [] : [(wall + 3 * 86_400).to_s[0, 16], (wall + 9 * 86_400).to_s[0, 16]]
    use(UseCases::SeriesRun, @marit).change(
      series_id: @series,
      version: Records::Series.find(@series).lock_version,
      from_meeting_id: [from.id, nil].sample(random: random),
      run: {
        local_start: wall.to_s[0, 16], time_zone: "Europe/Oslo", length_min: 45, rule: rule, dates: dates
      }
    )
  end

  def set_people(ids)
    series = Records::Series.find(@series)
    use(UseCases::Series, @marit).change(
      id: @series, version: series.lock_version, title: series.title,
      members: ids.map { |id| {person_id: id, role: "required"} }
    )
  end

  def change_title(use, title)
    series = Records::Series.find(@series)
    members = series.members.map { |member| {person_id: member.person_id, role: member.role} }
    use.change(id: @series, version: series.lock_version, title: title, members: members)
  end

  it "leave each invited person's calendar equal to ours" do
    random = Random.new(20_261_124)
    @marit = person("Marit Hauge")
    wants_own_mail(@marit)
    @people = ["Ines Torvald", "Lars Ekeli", "Wen Halloran"].map { |name| person(name) }
    addresses = Records::Person.pluck(:id, :email).to_h
    differences, words = [], []
    histories.times do |number|
      clock.now = clock.began
      @series = begun(number)
      calendars = {}
      told = {}
      random.rand(2..steps).times do |step|
        clock.now += 60 + random.rand(3) * 86_400
        act(random) unless step.zero?
        next if random.rand < 0.3 # several changes go as one update

        use(UseCases::Invitations, @marit).send_all(id: key, series_id: @series)
        sent = mails
        members = Records::SeriesMember.where(series_id: @series).map { |member| addresses[member.person_id] }
        sent.each do |to, mail|
          missing = missing_words(mail, told[to], members.include?(to))
          words << [number, step, to, mail.subject, missing] if missing.any?
          told[to] = if ours.empty? then :called_off
          else members.include?(to) ? ours : :taken_off
          end
        end
        deliver(calendars, calendars_in(sent), random)
        Records::SeriesMember.where(series_id: @series).each do |member|
          entry = calendars[addresses[member.person_id]]
          differences << [number, step, ours, entry && theirs(entry)] unless (entry ? theirs(entry) : []) == ours
        end
        (addresses.keys - Records::SeriesMember.where(series_id: @series).pluck(:person_id)).each do |id|
          entry = calendars[addresses[id]]
          differences << [number, step, :gone, theirs(entry)] if entry && theirs(entry).any?
        end
      end
    end
    expect(differences.first(2)).to be_empty
    expect(differences.size).to eq 0
    expect(words.first(2)).to be_empty
  end
  # The same for a booked time: what the visitor and the host do to it, in both calendars and in the words of the mails.
  it "leave both sides of a booked time with the same" do
    random = Random.new(20_261_130)
    @marit = person("Marit Hauge")
    open = key
    use(UseCases::OpenHours, @marit).create(
      id: open, title: "Buoy clinic", time_zone: "Europe/Oslo", lengths: [30], step_min: 30, notice_min: 60,
      hosts: [{person_id: @marit, week: %w[mo tu we th fr].to_h { |day| [day, [%w[09:00 16:00]]] }}]
    )
    wrong = []
    histories.times do |number|
      clock.now = clock.began
      calendars = {}
      booking = taken(open, number)
      @series = booking.series_id
      random.rand(2..steps).times do |step|
        clock.now += 60 + random.rand(2) * 43_200
        deed = step.zero? ? "booked" : change_booking(booking.reload, random)
        next unless deed

        sent = mails
        deliver(calendars, calendars_in(sent), random)
        wrong.concat(wrong_words(sent, deed, booking.reload).map { |words| [number, step, deed, words] })
        calendars.each do |to, entry|
          wrong << [number, step, deed, to, ours, theirs(entry)] unless theirs(entry) == ours
        end
        break if booking.state == "given_back"
      end
    end
    expect(wrong.first(3)).to eq []
  end

  def taken(open, number)
    starts = Core::Zone["Europe/Oslo"].instant(Core::WallTime.at(next_monday(1) + number % 5, 9 * 3_600))
    free = Records::OpenHours.find(open)
    UseCases::Bookings.new(clock: clock).book(
      free, id: key, starts_at: starts + (number / 5 % 12) * 1_800, length_min: 30, time_zone: "Europe/Oslo",
      email: "odd#{number}@port.example", name: "Odd #{number}", answers: []
    )
  end

  # @return [String, nil] what was done; nil where it was refused
  def change_booking(booking, random)
    bookings = UseCases::Bookings.new(clock: clock)
    case random.rand(5)
    when 0, 1
      bookings.move(booking, starts_at: booking.time.starts_at + random.rand(1..8) * 1_800)
      "moved"
    when 2
      bookings.give_back(booking)
      "given back"
    when 3 then by_host { move(booking.meeting, random) } && "by the host"
    else
      to = booking.called_off? ? "planned" : "called_off"
      by_host { state(booking.meeting_id, @marit, to, reason: ("Storm" if to == "called_off")) } && "by the host"
    end
  rescue Core::Invalid, Core::Conflict, UseCases::Bookings::Taken
    nil
  end

  def by_host
    yield
    use(UseCases::Invitations, @marit).send_all(id: key, series_id: @series)
    true
  end

  # The visitor reads of their own deed as theirs, of the host's as the host's; each mail that asks has their own link.
  def wrong_words(sent, deed, booking)
    visitor = sent.select { |to, _| to.start_with?("odd") }.map { |_, mail| mail.text_part.decoded }
    said = {"booked" => "You have booked", "moved" => "You have moved", "given back" => "You have given back",
            "by the host" => /Marit Hauge (?:has|lets|no longer)/}.fetch(deed)
    wrong = visitor.reject { |text| text.match?(said) }
    return wrong if booking.state == "given_back" || booking.called_off?

    wrong + visitor.reject { |text| text.include?("/booking/#{booking.id}/") }
  end
end
