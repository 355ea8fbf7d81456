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
    poll, open = key, key
    use(UseCases::TimePolls, marit).create(
      id: poll, title: "When?", length_min: 30, time_zone: "UTC",
      candidates: [{id: key, starts_at: clock.now.floor + 9 * 86_400}], people: [{person_id: wen, role: "required"}]
    )
    use(UseCases::OpenHours, marit).create(
      id: open, title: "Clinic", time_zone: "UTC", lengths: [30], notice_min: 0, hosts: [{person_id: marit}]
    )
    shared = Records::TimePoll.find(poll).tap { |one| one.update!(shared: true) }
    sent, reading = Records::Sending.last.id,
use(UseCases::FileReadings, marit).hand_in("invitation", content: "x", most: 9)
    Records::RowPicker.create!(meeting_id: meetings[2], person_id: wen, name: "Wen")
    preparation = Records::Preparation.create!(meeting_id: meetings[3], place_id: place, items: ["chairs"])
    booking = UseCases::Bookings.new.book(
      Loading::OpenHoursLink.open(*Loading::OpenHoursLink.path(Records::OpenHours.find(open)).split("/").last(2)),
      id: key, length_min: 30, name: "Odd", email: "odd@port.example", time_zone: "UTC",
      starts_at: Time.at(Loading::FreeStarts.new(
        Records::OpenHours.find(open), from: clock.now + 5 * 86_400, to: clock.now + 12 * 86_400, now: clock.now
      ).starts(30).first.minute * 60).utc
    )
    links = {
      "shared-polls" => Loading::PollLink.shared_path(shared), "host-pages" => Loading::OpenHoursLink.host_path(marit),
      "booking-links" => Loading::OpenHoursLink.booking_path(booking),
      "pick-links" => Loading::PickLink.path(meetings[2], wen),
      "preparation-links" => Loading::Preparation.new(preparation).path,
      "answer-links" => Loading::AnswerLink.path(id, wen), "action-links" => Loading::ActionLink.path(action, wen),
      "poll-links" => Loading::PollLink.path(poll, wen),
      "open-hours-links" => Loading::OpenHoursLink.path(Records::OpenHours.find(open))
    }
    {
      # Who may most asks most.
      roles: {keeper: marit, again: marit, once_more: marit, member: wen, admin: person("Odd Berg", admin: true),
              nobody: nil},
      links: links.transform_values { |path| path.split("/").drop(2).join("/") },
      keys: {
        series: [id], meeting: meetings, person: [marit, wen, gunnar], place: [place], calendar: [calendar],
        hold: [hold], group: [group], topic: [topic], action: [action], paper: [paper],
        line: [Records::Line.first.id], time_poll: [poll], open_hours: [open], atMeeting: meetings,
        sending: [sent], file_reading: [reading], hosting: [Records::OpenHoursHost.last.id]
      }
    }
  end

  # What the process holds: of the machine, and of that alive in Ruby. It levels off, or something is kept.
  def memory
    GC.start
    held = File.read("/proc/self/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024
    "#{held} MB held, #{GC.stat(:heap_live_slots) / 1_000} thousand objects alive"
  end

  # Begun anew after each thousand: by then much has been changed and some removed.
  Array.new(Integer(ENV.fetch("FUZZ", "1000")) / 1_000) { |i|
    Integer(ENV.fetch("FUZZ_SEED", "1")) * 1_000 + i
  }.each do |seed|
    it "are answered, never with a fault, and none takes long: #{seed}" do
      here = stage
      signed_in = here[:roles].transform_values { |person_id| signed_in_as(person_id) }
      outcomes = []
      FuzzRequests.new(Calls::APP, seed: seed, signed_in: signed_in, today: today, **here.slice(:keys, :links))
        .run(1_000) do |outcome|
          outcomes << outcome
          Rack::Attack.reset!
          Records::Session.update_all(ended_at: nil) # who signs everybody out would end the walk
        end
      puts "#{outcomes.map(&:status).tally.sort.to_h}, #{memory}" if ENV["FUZZ"]
      faults = outcomes.select { |one| one.status >= 500 }
      expect(
        faults.map { |one| "#{one.operation} #{one.method} #{one.path.inspect} #{one.sent.inspect[0, 400]}" }
      ).to eq []
      expect(
        outcomes.select { |one| one.seconds > 2 }.map { |one| [one.operation, one.seconds, one.sent.to_s[0, 300]] }
      ).to eq []
      # They are aimed: most pass by door and shape, and enough find what they are about, though some remove it.
      shaped = outcomes.reject { |one| [400, 401, 403, 413].include?(one.status) }
      expect([shaped.size * 2, shaped.count { |one| one.status != 404 } * 3]).to all be >= outcomes.size
    end
  end
end
