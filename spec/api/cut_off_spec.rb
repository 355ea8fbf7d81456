require_relative "../api_helper"

# A text nobody foresaw may cost a processor's time; it must not take others with it.
RSpec.describe Api::CutOff do
  let!(:marit) { person("Marit Hauge") }

  def env = Rack::MockRequest.env_for("/api/desk")

  def cut_off(most_s = 0.3, &app) = described_class.new(app, most_s: most_s)

  it "ends a request that computes on and on, with a reason and when to come again" do
    answer = cut_off { |_| loop { "x" * 1_000 } }.call(env)
    expect([answer[0], answer[1]["retry-after"], JSON.parse(answer[2].join)["type"]])
      .to eq [503, "60", "urn:left-over:problem:too-long"]
  end

  # Patterns look now and then whether they are to end; without that one could not be ended at all.
  it "ends one that is caught in a pattern" do
    answer = cut_off { |_| [200, {}, [(/(a+)+$/ =~ "#{"a" * 40}!").to_s]] }.call(env)
    expect(answer[0]).to eq 503
  end

  it "keeps nothing of what it was about to write, and the next request finds a whole connection" do
    answer = cut_off do |_|
      Records::Base.write do
        Records::Person.where(id: marit).update_all(name: "Half")
        loop { "x" * 1_000 }
      end
    end.call(env)
    expect([answer[0], Records::Person.find(marit).name]).to eq [503, "Marit Hauge"]
    expect(cut_off { |_| [200, {}, [Records::Person.count.to_s]] }.call(env)[2]).to eq ["1"]
  end

  it "lets alone who waits for something else, and others at the same time" do
    waiting = Queue.new
    slow = Thread.new { cut_off { |_| [200, {}, [waiting.pop]] }.call(env) }
    busy = cut_off { |_| loop { "x" * 1_000 } }.call(env)
    waiting << "late"
    expect([busy[0], slow.value]).to eq [503, [200, {}, ["late"]]]
  end

  it "is around everything the web server answers" do
    stub_const("Api::CutOff::MOST_S", 0.3)
    app = Api::App.build
    allow(Views::People).to receive(:new) { loop { "x" * 1_000 } }
    answer = app.call(Rack::MockRequest.env_for("/api/session"))
    expect(answer[0]).to eq 503
  end
end
