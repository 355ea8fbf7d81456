require_relative "../spec_helper"

# What is pressed in a list of attendance, one after the other, and what the minutes say then. Common practice: minutes
# say who came late and left early, and who went out and came back.
RSpec.describe Core::Sheet::Stay do
  clock = ->(text) { Time.utc(2026, 11, 30, *text.split(":").map(&:to_i)) }
  said = ->(time) { time.strftime("%H:%M") }

  # [what is pressed, at the time it is pressed, with the time that is given] …, words, as it is typed
  [
    [[[:present, "10:00"]], nil, nil],
    [[[:late, "10:20"]], "from 10:20", "10:20–"],
    [[[:late, "10:25", "10:20"], [:left, "12:53"]], "10:20–12:53", "10:20–12:53"],
    [[[:present, "10:00"], [:left, "11:00"]], "until 11:00", "–11:00"],
    [[[:present, "10:00"], [:left, "11:00"], [:left, "11:05", "10:55"]], "until 10:55", "–10:55"],
    [[[:present, "10:00"], [:left, "11:00"], [:present, "11:00"]], nil, nil],
    [[[:present, "10:00"], [:left, "11:00"], [:present, "11:10"]], "until 11:00, from 11:10", "–11:00, 11:10–"],
    [[[:late, "10:20"], [:left, "11:00"], [:late, "11:30", "11:15"], [:left, "12:00"]], "10:20–11:00, 11:15–12:00",
      "10:20–11:00, 11:15–12:00"],
    [[[:late, "10:20"], [:present, "10:21"]], nil, nil],
    [[[:left, "11:00"], [:on_call, "11:20"]], "until 11:00, from 11:20", "–11:00, 11:20–"],
    [[[:late, "10:20"], [:apologies, "10:30"]], nil, nil]
  ].each do |presses, words, typed|
    it "#{presses.map { |press| press.join(" ") }.join(", ")}: #{words || "no times"}" do
      stay = presses.inject(described_class.new) do |before, (state, now, at)|
        before.after(state, at: at && clock[at], now: clock[now])
      end
      expect([stay.words(&said), stay.text(&said)]).to eq [words, typed]
      expect(described_class.parse(typed, &clock).spans).to eq stay.spans if typed
    end
  end

  it "takes it for a mistake when somebody is marked gone and here again after the meeting" do
    gone = described_class.new([[nil, clock["11:00"]]])
    expect(gone.after(:present, at: nil, now: clock["15:00"], going_on: false).spans).to eq [[nil, nil]]
  end

  it "does not let anybody leave before they came" do
    came = described_class.new([[clock["10:20"], nil]])
    expect { came.after(:left, at: clock["10:10"], now: clock["11:00"]) }.to raise_error(Core::Invalid)
  end

  ["", "10:20", "12:00–10:00", "10:00–, 11:00–", "10:00–11:00, –12:00", "soon–later", (["10:00–11:00"] * 13).join(","),
    "9:00–" * 5_000].each do |text|
    it "does not take “#{text[0, 30]}” for times" do
      expect { described_class.parse(text, &clock) }.to raise_error(Core::Invalid)
    end
  end
end
