require_relative "../app_helper"

# A property, not examples: whatever becomes of two series over their lives, no action and no topic is lost or stands
# twice, and each action is as old as a plain count of meetings gives it. Fixed seed; 12 lives here, 500 by
# `bin/bench lives`.
RSpec.describe "Random lives of series" do
  lives = Integer(ENV.fetch("LIVES", "12"))
  steps = 30
  # So that there is something to lose.
  often = %i[raise_one raise_one raise_one raise_one raise_one raise_one bring begin begin begin hand_over split review]

  let(:marit) { person("Marit Hauge") }
  let(:ids) { %w[Boats Paint].map { |title| series(marit, {}, title: title, rule: "FREQ=WEEKLY;BYDAY=MO;COUNT=10") } }

  def meetings(state, id = ids) = Records::Meeting.where(series_id: id, state: state).in_order.to_a

  def open_actions = Records::ActionItem.where(series_id: ids, state: "open").order(:id).to_a

  def coming = meetings("planned").select { |meeting| meeting.starts_at > clock.now }

  def pick(all) = all.empty? ? nil : all[@random.rand(all.size)]

  # Each takes what it finds and does nothing where there is nothing. What the product refuses changes nothing.
  def deeds = {
    raise_one: -> do
      meeting = pick(meetings("in_session")) or return
      raise_action(meeting.id, marit, "Action #{@made += 1}")
    end,
    bring: -> { (meeting = pick(coming)) && topic(meeting.id, marit, "Topic #{@made += 1}") },
    begin: -> do
      meeting = coming.first or return
      clock.now = meeting.starts_at
      state(meeting.id, marit, "in_session")
    end,
    close: -> { (meeting = pick(meetings("in_session"))) && state(meeting.id, marit, "closed") },
    issue: -> { (meeting = pick(meetings("closed"))) && state(meeting.id, marit, "issued") },
    open_again: -> { (meeting = meetings("closed").last) && state(meeting.id, marit, "in_session") },
    call_off: -> { (meeting = pick(coming)) && state(meeting.id, marit, "called_off", reason: "Storm") },
    bring_back: -> do
      meeting = pick(meetings("called_off").select { |one| one.starts_at > clock.now }) or return
      state(meeting.id, marit, "planned")
    end,
    move: -> do
      meeting = pick(coming) or return
      day = @random.rand(-2..2)
      starts_at = meeting.starts_at + day * 86_400
      use(UseCases::MeetingChanges, marit).move(
        meeting_id: meeting.id, version: meeting.lock_version, local_start: meeting.series.zone.wall(starts_at).to_s
      )
    end,
    put_off: -> do
      meeting = pick(meetings("in_session")) or return
      one = pick(Loading::Topics.at(meeting.id)) or return
      use(UseCases::Topics, marit).put_off(meeting_id: meeting.id, topic_id: one.id, put_off: @random.rand < 0.7)
    end,
    take: -> do
      meeting = pick(meetings("in_session")) or return
      one = pick(Loading::Topics.at(meeting.id)) or return
      use(UseCases::Topics, marit).discuss(meeting_id: meeting.id, topic_id: one.id)
    end,
    done: -> { (one = pick(open_actions)) && use(UseCases::Actions, marit).move(id: one.id, state: "done") },
    undone: -> do
      one = pick(Records::ActionItem.where(series_id: ids, state: %w[done dropped]).order(:id).to_a) or return
      use(UseCases::Actions, marit).move(id: one.id, state: "open")
    end,
    review: -> do
      meeting = pick(meetings("in_session")) or return
      one = pick(open_actions.select { |action| action.series_id == meeting.series_id }) or return
      use(UseCases::Actions, marit).review(
        meeting_id: meeting.id, action_id: one.id, verdict: %w[done keep drop].sample(random: @random), word: "so"
      )
    end,
    split: -> do
      meeting = pick(meetings("in_session")) or return
      one = pick(open_actions.select { |action| action.series_id == meeting.series_id }) or return
      parts = Array.new(2) { {id: key, text: "Part #{@made += 1}"} }
      use(UseCases::Actions, marit).split(meeting_id: meeting.id, action_id: one.id, parts: parts)
    end,
    hand_over: -> do
      one = pick(open_actions) or return
      use(UseCases::HandingOver, marit).hand_over(id: key, action_id: one.id, series_id: (ids - [one.series_id]).first)
    end,
    give_back: -> do
      one = pick(open_actions.select(&:handed_from_id)) or return
      use(UseCases::HandingOver, marit).give_back(one.id)
    end,
    pause: -> do
      day = clock.now.to_date + @random.rand(1..10)
      use(UseCases::SeriesEnding, marit).pause(
        series_id: pick(ids), from_day: day.iso8601, until_day: (day + 8).iso8601, reason: "Winter"
      )
    end,
    merge: -> do
      next unless @random.rand < 0.2

      from, to = ids.shuffle(random: @random)
      use(UseCases::SeriesEnding, marit).end_series(
        series_id: from, reason: "One is enough", actions: {way: "hand_over", series_id: to},
        topics: {way: "hand_over", series_id: to}
      )
    end
  }

  def live(name)
    deeds.fetch(name).call
  rescue Core::Conflict, Core::Invalid, Core::Stale, Core::NotFound, LocalJumpError
    nil
  end

  # By nothing but what stands in the tables.
  def plain_age(action)
    held = Records::Meeting.where(series_id: action.series_id, state: %w[in_session closed issued]).select do |one|
      [one.starts_at, one.begun_at].compact.min > action.raised_at && one.id != action.raised_at_meeting_id
    end
    return held.size if action.state == "open"

    closed_in = Records::Meeting.find_by(id: action.closed_at_meeting_id)
    last = [action.closed_at, closed_in && [closed_in.starts_at, closed_in.begun_at].compact.min].compact.max
    held.count { |one| [one.starts_at, one.begun_at].compact.min <= last }
  end

  def expect_nothing_lost(known)
    now = Records::ActionItem.where(series_id: ids)
    expect(known - now.ids).to eq []
    expect(now.where(state: "open").group(:text).count.values.max.to_i).to be <= 1
    ledgers = Loading::Ledgers.of(ids)
    now.each { |one| expect(ledgers[one.series_id].carried(one.to_core)).to eq(plain_age(one)), one.inspect }
    ids.each { |id| expect_each_topic_once(id, ledgers[id]) }
    ids.each { |id| expect_left_over(id, ledgers[id]) }
    now.ids
  end

  def expect_each_topic_once(id, ledger)
    places = ledger.meetings.flat_map { |one| ledger.topics_at(one.id).map(&:id) }
    expect(places.uniq.size).to eq places.size
    open = ledger.meetings.select { |one| %i[planned in_session].include?(one.state) }
    waiting = Records::Topic.on.where(series_id: id, settled_at_meeting_id: nil)
    lost = waiting.reject { |one| places.include?(one.id) }
    expect(lost.select { |one| open.any? { |meeting| meeting.starts_at >= one.meeting.starts_at } }).to eq []
  end

  # The next sheet begins with everything that was open before it.
  def expect_left_over(id, ledger)
    following = ledger.meetings.find { |one| one.state == :planned && one.starts_at > clock.now } or return
    before = Records::ActionItem.where(series_id: id, state: "open").select { |one| one.raised_at < following.starts_at }
    shown = ledger.left_over_actions(following.id).select { |one| one.state == :open }
    expect(shown.map(&:id)).to match_array before.map(&:id)
  end

  # What is found is what stands there, under the series and meeting where it stands now.
  def expect_found_where_it_stands
    kinds = [Records::Series, Records::Topic, Records::Line, Records::ActionItem, Records::ActionChange]
    wanted = kinds.flat_map(&:all).map { |one| [one.id, one.search_text] }
      .reject { |_, row| row.nil? || row[:text].to_s.strip.empty? }
    kept = Records::SearchText.all.index_by(&:id)
    differing = wanted.reject { |id, row| kept[id] && row.all? { |name, value| kept[id][name] == value } }
    expect([differing, kept.keys - wanted.map(&:first)]).to eq [[], []]
  end

  lives.times do |number|
    it "lose nothing: life #{number}" do
      @random, @made, known = Random.new(number), 0, []
      ids
      did = Array.new(steps) do
        name = (deeds.keys + often).sample(random: @random)
        live(name)
        known |= expect_nothing_lost(known)
        name
      rescue RSpec::Expectations::ExpectationNotMetError => error
        raise error.class, "after #{name}: #{error.message}"
      end
      expect(did.size).to eq steps
      expect_found_where_it_stands
    end
  end
end
