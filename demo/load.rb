# Fills an empty database with half a year of the Skerry Buoy Trust, through the application's own use cases.
#   ruby demo/load.rb            does nothing when people are there already
#   ruby demo/load.rb --again    empties the database first
require "fileutils"
require_relative "../config/boot"
require_relative "story"
require_relative "asking"

# A clock that is set by hand, so that the past can be lived through in order.
class SetClock
  attr_accessor :now
end

class Demo
  WEEKS = 26

  # Does nothing when people are there already.
  def self.load_once = (new.load if Views::People.new.empty?)

  def self.empty
    Records::Base.connection_pool.with_connection do |connection|
      connection.disable_referential_integrity do
        (connection.tables - %w[schema_migrations ar_internal_metadata]).each do |table|
          connection.execute("DELETE FROM #{connection.quote_table_name(table)}")
        end
      end
    end
    FileUtils.rm_f(Dir.glob(File.join(Settings.var, "post", "*")))
  end

  def initialize(today_at: Clock.now)
    @clock = SetClock.new
    @end = today_at
    @random = Random.new(42)
    @people = {}
    @series = {}
  end

  def load
    @clock.now = @end - WEEKS * 7 * 86_400
    add_people
    add_places_and_groups
    long_ago { Story::SERIES.each { |key, plan| add_series(key, plan) } }
    past = Records::Meeting.where("ends_at < ?", @end).in_order.pluck(:id, :series_id)
    past.each_with_index do |(id, series_id), i|
      long_ago { hold(id, @series.key(series_id)) }
      show_progress(i + 1, past.size)
    end
    @clock.now = @end
    prepare_coming
    UseCases::LayingOut.new(clock: @clock).lay_out_further
    have_ready
    hold_a_time
    invite_from_elsewhere
    send_another
    DemoAsking.new(@people, @clock).load
    puts
  end

  private

  # Coffee at the next mooring round; who looks after the shed has not confirmed it yet.
  def have_ready
    UseCases::Preparations.new(by: @people[:marit], clock: @clock).ask(
      meeting_id: Records::Meeting.where(series_id: @series[:mooring]).coming(@end).in_order.pick(:id),
      place_id: @places[:shed], items: ["Heater on", "Coffee and buns"]
    )
  end

  # Rory cannot come to the next mooring round and sends somebody.
  def send_another
    meeting = Records::Meeting.where(series_id: @series[:mooring]).coming(@end).in_order.second
    UseCases::Substitutes.new(by: @people[:rory], clock: @clock).send_instead(
      meeting_id: meeting.id, person_id: @people[:rory], name: "Nell Comeau", email: "nell@fundywatch.example"
    )
  end

  # As a program of another house writes it; see stand_ins/post/organizer.rb.
  def invite_from_elsewhere
    start = Core::WallTime.at((@end.to_date + 3..).find { |day| day.wday.between?(1, 5) }, 14 * 3_600)
    ical = [
      "BEGIN:VCALENDAR",
      "VERSION:2.0",
      "PRODID:-//Port council//EN",
      "METHOD:REQUEST",
      "BEGIN:VEVENT",
      "UID:harbour-dues@portcouncil.example",
      "SEQUENCE:0",
      "DTSTAMP:#{@end.getutc.strftime("%Y%m%dT%H%M%SZ")}",
      "DTSTART;TZID=Europe/Oslo:#{start.strftime("%Y%m%dT%H%M%S")}",
      "DURATION:PT1H",
      "SUMMARY:Harbour dues\\, port council",
      "LOCATION:Harbour office",
      "ORGANIZER;CN=Olav Dahl:mailto:olav@portcouncil.example",
      "ATTENDEE;PARTSTAT=NEEDS-ACTION;RSVP=TRUE:mailto:marit@skerrybuoy.example",
      "END:VEVENT",
      "END:VCALENDAR",
      ""
    ].join("\r\n")
    UseCases::OutsideMeetings.new(clock: @clock).take_mail(
      Core::Invitation::Message.read(ical), ical, sender: "olav@portcouncil.example"
    )
  end

  # What was mailed in the past half year has long arrived: in one transaction, so that no worker sees it waiting.
  def long_ago
    Records::Base.write do
      yield
      Records::Mail.where(state: "waiting").update_all(state: "sent", sent_at: @clock.now)
    end
  end

  def add_people
    Story::PEOPLE.each_with_index do |(key, (name, zone)), i|
      email = "#{key}@skerrybuoy.example"
      wish = {
        id: @people[key] = Records::Key.make(@clock.now), name: name, email: email, time_zone: zone,
        password: Story::PASSWORD
      }
      i.zero? ? people(nil).set_up(**wish, code: Settings.set_up_code) : people(@people[:marit]).add(**wish)
    end
  end

  def add_places_and_groups
    places = UseCases::Places.new(by: @people[:marit], clock: @clock)
    @places = Story::PLACES.to_h do |key, (name, seats, equipment, whereabouts, keeper, ready)|
      id = Records::Key.make(@clock.now)
      places.add(
        id: id, name: name, seats: seats, equipment: equipment, time_zone: "Europe/Oslo", opening_hours: Story::OPEN,
        whereabouts: whereabouts, looked_after_by_id: @people[keeper],
        prepares: (ready || []).map { |what, before_min| {name: what, before_min: before_min} }
      )
      [key, id]
    end
    groups = UseCases::Groups.new(by: @people[:marit], clock: @clock)
    ids = {}
    Story::GROUPS.each do |name, (members, inner)|
      groups.add(
        id: ids[name] = Records::Key.make(@clock.now), name: name, person_ids: members.map { |key| @people[key] },
        group_ids: inner.map { |one| ids[one] }
      )
    end
    Story::PEOPLE.each { |key, (_, zone)| add_hours_and_calendar(key, zone) }
  end

  # Calendars are read from the stand-in host once the worker runs.
  def add_hours_and_calendar(key, zone)
    id = @people[key]
    off = (key == :rory) ? [{on: (@end.to_date + 16).iso8601, word: "Leave"}] : []
    UseCases::People.new(by: id, clock: SetClock.new.tap { |clock| clock.now = @end }).keep_hours(
      id: id, version: 0, working_hours: Story::HOURS[key] || Loading::Hours::USUAL,
      region: Story::REGIONS.fetch(zone), holidays_off: true, days_off: off
    )
    return if Story::WITHOUT_CALENDAR.include?(key)

    UseCases::Calendars.new(by: id, clock: @clock).add(
      id: Records::Key.make(@clock.now), name: "Own calendar", kind: "address", person_id: id,
      address: "http://127.0.0.1:#{Settings.calendar_host_port}/#{key}.ics"
    )
  end

  def hold_a_time
    zone = Core::Zone["Europe/Oslo"]
    day = @end.to_date + 9 + (4 - (@end.to_date + 9).wday) % 7
    UseCases::Holds.new(by: @people[:marit], clock: @clock).keep(
      id: Records::Key.make(@end), title: "Talk with the port about a berth",
      starts_at: zone.instant(Core::WallTime.parse("#{day}T13:30")), length_min: 45, time_zone: zone.name,
      people: [{person_id: @people[:marit], role: "required"}, {person_id: @people[:sunniva], role: "required"}]
    )
  end

  def people(by) = UseCases::People.new(by: by, clock: @clock)

  def add_series(key, plan)
    zone = Core::Zone[plan[:zone]]
    start = Core::WallTime.parse("#{zone.wall(@clock.now).date + 1}T#{plan[:at]}")
    members = {required: plan[:required], optional: plan[:optional] || [], informed: plan[:informed] || []}
      .flat_map { |role, keys| keys.map { |person| {person_id: @people.fetch(person), role: role.to_s} } }
    @series[key] = Records::Key.make(@clock.now)
    UseCases::Series.new(by: @people[plan[:keeper]], clock: @clock).create(
      id: @series[key],
      title: plan[:title],
      purpose: plan[:purpose],
      place: plan[:place],
      place_id: @places[plan[:held]],
      before_min: plan[:before] || 0,
      after_min: plan[:after] || 0,
      keeper_id: @people[plan[:keeper]],
      chair_id: @people[plan[:chair]],
      quorum: plan[:quorum],
      members: members,
      call: plan[:call],
      mark: plan[:mark],
      options: plan[:options],
      run: {
        local_start: start.to_s, time_zone: plan[:zone], length_min: plan[:length_min], rule: plan[:rule]
      }
    )
    UseCases::Invitations.new(by: @people[plan[:keeper]], clock: @clock).send_all(
      id: Records::Key.make(@clock.now), series_id: @series[key]
    )
  end

  def as(kind, key) = kind.new(by: @people[Story::SERIES[key][:keeper]], clock: @clock)

  # One meeting from agenda to issued minutes, or called off.
  def hold(id, key)
    plan = Story::SERIES[key]
    meeting = Records::Meeting.find(id)
    weeks_ago = ((@end - meeting.starts_at) / 604_800).floor
    @clock.now = meeting.starts_at - 86_400
    return call_off(id, key, plan[:off][weeks_ago]) if plan[:off].key?(weeks_ago)

    topics = bring_topics(id, key, plan)
    @clock.now = meeting.starts_at
    as(UseCases::Meetings, key).change_state(meeting_id: id, state: "in_session")
    take_attendance(id, key, plan)
    review(id, key, plan, weeks_ago)
    topics.each do |topic_id, minutes|
      discuss(id, key, topic_id, minutes, plan, weeks_ago, last: topic_id == topics.keys.last)
    end
    @clock.now = [meeting.ends_at, @clock.now].max
    as(UseCases::Meetings, key).change_state(meeting_id: id, state: "closed")
    return if waits?(key, weeks_ago)

    @clock.now += 3_600
    as(UseCases::Meetings, key).change_state(meeting_id: id, state: "issued")
  end

  def call_off(id, key, reason)
    as(UseCases::Meetings, key).change_state(meeting_id: id, state: "called_off", reason: reason)
    as(UseCases::Invitations, key).send_all(id: Records::Key.make(@clock.now), series_id: @series[key], note: reason)
  end

  # The keeper's latest sheets still wait to be issued.
  def waits?(key, weeks_ago) = %i[mooring quality].include?(key) && weeks_ago.zero?

  def bring_topics(id, key, plan)
    plan[:topics].to_h do |title, presenter, minutes, purpose, text|
      topic_id = Records::Key.make(@clock.now)
      as(UseCases::Topics, key).add(
        id: topic_id, meeting_id: id, title: title, purpose: purpose, length_min: minutes,
        presenter_id: @people[presenter], text: text, closed: (plan[:closed] || []).include?(title)
      )
      [topic_id, [minutes + @random.rand(-2..3), 1].max]
    end
  end

  def take_attendance(id, key, plan)
    states = plan[:required].to_h do |person|
      [@people[person], (%w[present on_call present on_call apologies] + %w[present] * 3).sample(random: @random)]
    end
    as(UseCases::Attendance, key).attend_all(meeting_id: id, states: states)
  end

  def review(id, key, plan, weeks_ago)
    open = Records::ActionItem.where(series_id: @series[key], state: "open").to_a
    open.each do |action|
      raised, _, _, weeks = plan[:actions].find { |_, text, _, _| text == action.text }
      due = weeks && raised - weeks >= weeks_ago
      if due || @random.rand < 0.3
        as(UseCases::Actions, key).review(meeting_id: id, action_id: action.id, verdict: due ? "done" : "keep")
      end
    end
  end

  def discuss(id, key, topic_id, minutes, plan, weeks_ago, last:)
    as(UseCases::Topics, key).discuss(meeting_id: id, topic_id: topic_id)
    minutes_of = as(UseCases::Minutes, key)
    say = ->(kind, text, action = nil) do
      minutes_of.add(
        id: Records::Key.make(@clock.now), meeting_id: id, topic_id: topic_id, kind: kind, text: text, action: action
      )
    end
    say.call("note", plan[:notes].sample(random: @random)) if @random.rand < 0.6
    say.call("decision", plan[:decisions].sample(random: @random)) if plan[:decisions].any? && @random.rand < 0.15
    raise_actions(key, plan, weeks_ago, say) if last
    @clock.now += minutes * 60
  end

  def raise_actions(key, plan, weeks_ago, say)
    plan[:actions]
      .select do |raised, text|
        raised >= weeks_ago && raised < weeks_ago + step(plan) &&
          !Records::ActionItem.exists?(series_id: @series[key], text: text)
      end
      .each do |_, text, owner, weeks|
        due_on = due(weeks) unless Story::WITHOUT_DATE.include?(text)
        say.call("action", text, {owner_ids: [@people[owner]], due_on: due_on})
      end
  end

  # What is still open is due around now, the rest was soon after it was raised.
  def due(weeks) = weeks ? @clock.now.to_date + 10 : @end.to_date + @random.rand(-5..16)

  # Weeks from one meeting of a series to the next.
  def step(plan) = {/MONTHLY;INTERVAL=3/ => 13, /MONTHLY/ => 5, /INTERVAL=2/ => 2, // => 1}.find do |rule, _|
    plan[:rule].match?(rule)
  end
    .last

  # Topics and answers for what is next.
  def prepare_coming
    Story::SERIES.each do |key, plan|
      meeting = Records::Meeting.where(series_id: @series[key]).coming(@end).in_order.first or next
      prepare_agenda(meeting.id, key, plan)
      plan[:required].each_with_index do |person, i|
        next if i % 5 == 3

        answer = (i % 7 == 2) ? "declined" : Story::ANSWERS[i % Story::ANSWERS.size]
        UseCases::Answers.new(by: @people[person], clock: @clock).enter(
          meeting_id: meeting.id, person_id: @people[person], answer: answer
        )
      end
    end
  end

  # Some topics stand on every agenda; a member has brought one, and owners have said how it goes.
  def prepare_agenda(meeting_id, key, plan)
    standing, others = plan[:topics].partition { |title, *| (plan[:standing] || []).include?(title) }
    set_standing(key, standing) if standing.any?
    bring_topics(meeting_id, key, plan.merge(topics: others + (plan[:coming] || [])))
    (plan[:offered] || []).each do |person, title, minutes, text|
      UseCases::Topics.new(by: @people[person], clock: @clock).add(
        id: Records::Key.make(@clock.now), meeting_id: meeting_id, title: title, length_min: minutes, text: text
      )
    end
    (plan[:progress] || []).each do |text, person, word, delayed|
      action = Records::ActionItem.find_by!(series_id: @series[key], text: text)
      UseCases::Actions.new(by: @people[person], clock: @clock).note(
        id: Records::Key.make(@clock.now), action_id: action.id, text: word, delayed: delayed
      )
    end
    put_to_the_vote(key, plan)
  end

  def set_standing(key, topics)
    rows = topics.map do |title, presenter, minutes, purpose, text|
      {id: Records::Key.make(@clock.now), title: title, purpose: purpose, length_min: minutes,
       presenter_id: @people[presenter], text: text}
    end
    as(UseCases::StandingAgenda, key).set(series_id: @series[key], number: 0, topics: rows)
  end

  # On the last sheet, which waits to be issued.
  def put_to_the_vote(key, plan)
    text, proposer, seconder, counts = plan[:motion]
    meeting = Records::Meeting.where(series_id: @series[key], state: "closed").in_order.last or return
    return unless text

    line, topic = Records::Key.make(@clock.now), Loading::Ledgers.of([@series[key]])[@series[key]]
      .topics_at(meeting.id).last
    as(UseCases::Minutes, key).add(
      id: line, meeting_id: meeting.id, topic_id: topic.id, kind: "decision", text: text
    )
    as(UseCases::Motions, key).set(
      line_id: line, proposer_id: @people[proposer], seconder_id: @people[seconder], **counts
    )
  end

  def show_progress(done, all)
    return unless done % 10 == 0 || done == all

    print "\rLoading the demo: #{done} of #{all} meetings"
    $stdout.flush
  end
end

if $PROGRAM_NAME == __FILE__
  Demo.empty if ARGV.include?("--again")
  Demo.load_once
end
