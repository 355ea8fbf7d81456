require_relative "../api_helper"
require_relative "../../bench/fuzz_requests"

# Whatever is asked, however it is asked: an answer of the contract, and never a fault of ours. Seeded, so that what is
# found can be found again: FUZZ_SEED=n FUZZ=10000.
RSpec.describe "Random requests", :timeless do
  def signed_in_as(person_id)
    return [nil, nil] unless person_id

    sign_in(person_id)
    [rack_mock_session.cookie_jar.for(URI("http://example.org/")), csrf_token]
  end

  def stage
    marit, wen, gunnar = person("Marit Hauge", admin: true), person("Wen Halloran"), person("Gunnar Solberg")
    id = series(marit, {required: wen, informed: gunnar}, start: "#{today + 7}T09:30", rule: "FREQ=WEEKLY;COUNT=4")
    meetings = meeting_ids(id)
    place, calendar, hold, group = key, key, key, key
    use(UseCases::Places, marit).add(id: place, name: "Chart room", time_zone: "Europe/Oslo", looked_after_by_id: marit)
    use(UseCases::Calendars, wen).add(id: calendar, name: "Mine", kind: "by_hand", person_id: wen)
    use(UseCases::Holds, marit).keep(
      id: hold, title: "Later", starts_at: clock.now + 86_400, length_min: 30, time_zone: "Europe/Oslo"
    )
    use(UseCases::Groups, marit).add(id: group, name: "Crew", person_ids: [wen])
    topic = topic(meetings[0], marit, "Safety")
    state(meetings[0], marit, "in_session")
    action = raise_action(meetings[0], wen, "Order rope", owners: [wen])
    paper = key
    use(UseCases::Papers, wen).begin_paper(id: paper, meeting_id: meetings[3], name: "chart.txt", size_bytes: 5)
    use(UseCases::Papers, wen).put_piece(id: paper, number: 0, bytes: "depth")
    use(UseCases::Invitations, marit).send_all(id: key, series_id: id)
    {
      roles: {
        keeper: marit, member: wen, nobody: nil
      },
      keys: [
        id, *meetings, marit, wen, gunnar, place, calendar, hold, group, topic, action, paper, Records::Line.first.id
      ]
    }
  end

  it "are answered, never with a fault, and none takes long" do
    here = stage
    signed_in = here[:roles].transform_values { |person_id| signed_in_as(person_id) }
    outcomes = []
    FuzzRequests
      .new(Calls::APP, seed: Integer(ENV.fetch("FUZZ_SEED", "1")), signed_in: signed_in, keys: here[:keys])
      .run(Integer(ENV.fetch("FUZZ", "1000"))) do |outcome|
        outcomes << outcome
        Rack::Attack.reset!
        Records::Session.update_all(ended_at: nil) # who signs everybody out would end the walk
      end
    faults = outcomes.select { |one| one.status >= 500 }
    expect(
      faults.map { |one| "#{one.operation} #{one.method} #{one.path.inspect} #{one.sent.inspect[0, 400]}" }
    ).to eq []
    expect(
      outcomes.select { |one| one.seconds > 2 }.map { |one| [one.operation, one.seconds, one.sent.to_s[0, 300]] }
    ).to eq []
    # Enough of them come through to what they are about.
    expect(outcomes.count { |one| one.status < 300 }).to be > outcomes.size / 20
    puts outcomes.map(&:status).tally.sort.to_h if ENV["FUZZ"]
  end
end
