require_relative "../app_helper"

RSpec.describe UseCases::Holds, at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:start) { Time.utc(2026, 12, 1, 9) }
  let(:place) do
    key.tap do |id|
      use(UseCases::Places, marit).add(
        id: id, name: "Chart room", time_zone: "Europe/Oslo", looked_after_by_id: marit
      )
    end
  end

  def hold(starts_at: start, **rest)
    id = key
    use(described_class, marit).keep(
      id: id, title: "Berth", starts_at: starts_at, length_min: 60, time_zone: "Europe/Oslo",
      people: [{person_id: wen, role: "required"}], **rest
    )
    id
  end

  def states(at = start) =
    Loading::Availability
      .new(people: {wen => :required}, from: at, to: at + 3_600, now: clock.now)
      .people
      .first
      .then do |person|
        [person.busy, person.tentative].map { |spans| Core::Spans.touch?(spans, at.to_i / 60, at.to_i / 60 + 60) }
      end

  it "blocks tentatively until it is let go" do
    id = hold
    expect(states).to eq [false, true]
    2.times { use(described_class, marit).release(id) }
    expect([states, use(Views::Holds, marit).list[:holds]]).to eq [[false, false], []]
  end

  {
    "two weeks, unless said otherwise" => [nil, Time.utc(2026, 12, 20, 9), Time.utc(2026, 12, 8, 8)],
    "its start, when that comes first" => [nil, Time.utc(2026, 12, 1, 9), Time.utc(2026, 12, 1, 9)],
    "the end of a day, in the keeper's zone" => ["2026-12-03", Time.utc(2026, 12, 20, 9), Time.utc(2026, 12, 3, 23)]
  }.each do |situation, (on, starts_at, ends)|
    it "ends by itself after #{situation}" do
      id = hold(starts_at: starts_at, expires_on: on)
      expect(Records::Hold.find(id).expires_at).to eq ends
      clock.now = ends + 1
      expect(states(starts_at)).to eq [false, false]
      described_class.new(clock: clock).release_expired
      expect(Records::Hold.find(id).released_at).to eq ends
    end
  end

  [["2026-11-20", "/expiresOn"], ["2027-06-01", "/expiresOn"]].each do |on, pointer|
    it "does not end on #{on}, which is past or too far" do
      expect { hold(starts_at: Time.utc(2027, 7, 1), expires_on: on) }.to raise_error(Core::Invalid) { |error|
        expect(error.pointer).to eq pointer
      }
    end
  end

  it "keeps a place firmly: neither another hold nor a meeting gets it then, set-up included" do
    hold(place_id: place, before_min: 30)
    expect { hold(starts_at: start - 75 * 60, place_id: place) }.to raise_error(Core::Conflict) { |error|
      expect([error.code, error.details[:errors].first[:pointer]]).to eq %w[place-taken /placeId]
    }
    expect { hold(starts_at: start - 90 * 60, place_id: place) }.not_to raise_error
    expect { series(marit, {required: wen}, start: "2026-12-01T10:30", rule: nil, place_id: place) }.to raise_error(
      Core::Conflict
    )
  end

  it "is settled by the meeting that is made of it, in the place it kept" do
    id = hold(place_id: place)
    made = series(marit, {required: wen}, start: "2026-12-01T10:00", rule: nil, place_id: place, hold_id: id)
    expect(
      [Records::Hold.find(id).released_at, Records::PlaceBooking.where(meeting_id: meeting_ids(made)).count]
    ).to eq [clock.now, 1]
  end

  # Dates of an endless run laid out later find the place taken: the meeting stands, without it.
  it "leaves later dates of an endless run without a place that is held by then" do
    id = series(marit, {required: wen}, start: "2026-12-01T10:00", rule: "FREQ=MONTHLY;BYDAY=1TU", place_id: place)
    before = meeting_ids(id).size
    far = Core::Zone["Europe/Oslo"].instant(Core::WallTime.parse("2028-07-04T10:00"))
    Records::PlaceBooking.create!(
      id: key, place_id: place, meeting_id: meeting_ids(series(marit, start: "2026-12-02T10:00", rule: nil)).first,
      starts_at: far, ends_at: far + 3_600
    )
    clock.now += 240 * 86_400
    UseCases::LayingOut.new(clock: clock).lay_out_further
    later = Records::Meeting.where(series_id: id).in_order.to_a.drop(before)
    expect(later.map { |meeting| [meeting.starts_at == far, meeting.bookings.none?] }.uniq).to match_array [
      [true, true], [false, false]
    ]
  end
end
