import math,json
# A slow plain program: maximum likelihood with censoring by pattern search, closed-form distribution functions only.
def phi(z): return 0.5*math.erfc(-z/math.sqrt(2))
F={
 'normal':(lambda x,p:phi((x-p[0])/p[1]), lambda x,p:-0.5*((x-p[0])/p[1])**2-math.log(p[1])-0.5*math.log(2*math.pi)),
 'lognormal':(lambda x,p:phi((math.log(x)-p[0])/p[1]), lambda x,p:-0.5*((math.log(x)-p[0])/p[1])**2-math.log(p[1]*x)-0.5*math.log(2*math.pi)),
 'weibull':(lambda x,p:-math.expm1(-(x/p[1])**p[0]), lambda x,p:math.log(p[0]/p[1])+(p[0]-1)*math.log(x/p[1])-(x/p[1])**p[0]),
 'logistic':(lambda x,p:1/(1+math.exp(-(x-p[0])/p[1])), lambda x,p:-(x-p[0])/p[1]-math.log(p[1])-2*math.log1p(math.exp(-(x-p[0])/p[1]))),
 'log-logistic':(lambda x,p:1/(1+math.exp(-(math.log(x)-p[0])/p[1])), lambda x,p:-(math.log(x)-p[0])/p[1]-math.log(p[1])-math.log(x)-2*math.log1p(math.exp(-(math.log(x)-p[0])/p[1]))),
 'smallest-extreme-value':(lambda x,p:-math.expm1(-math.exp((x-p[0])/p[1])), lambda x,p:(x-p[0])/p[1]-math.exp((x-p[0])/p[1])-math.log(p[1])),
 'largest-extreme-value':(lambda x,p:math.exp(-math.exp(-(x-p[0])/p[1])), lambda x,p:-(x-p[0])/p[1]-math.exp(-(x-p[0])/p[1])-math.log(p[1])),
 'cauchy':(lambda x,p:0.5+math.atan((x-p[0])/p[1])/math.pi, lambda x,p:-math.log(math.pi*p[1]*(1+((x-p[0])/p[1])**2))),
}
def ll(f,p,x,b):
    if p[1]<=0 or (f=='weibull' and p[0]<=0): return -math.inf
    c,d=F[f]
    try:
        s=math.fsum(d(v,p) for v in x)
        for lo,hi in b:
            q=(c(hi,p) if hi is not None else 1)-(c(lo,p) if lo is not None else 0)
            s+=math.log(q)
        return s
    except (ValueError,OverflowError): return -math.inf
def search(f,p,x,b):
    step=[0.1,0.1]; best=ll(f,p,x,b)
    while max(step)>1e-9:
        moved=False
        for i in (0,1):
            for sg in (1,-1):
                q=list(p); q[i]+=sg*step[i]
                v=ll(f,q,x,b)
                if v>best: p,best,moved=q,v,True
        for a in (1,-1):
            for c in (1,-1):
                q=[p[0]+a*step[0],p[1]+c*step[1]]; v=ll(f,q,x,b)
                if v>best: p,best,moved=q,v,True
        if not moved: step=[s/1.6 for s in step]
    return p,best
x=[0.06,0.08,0.11,0.12,0.15,0.19,0.23,0.31,0.38,0.52,0.61,0.87]
cases={'left':[(None,0.05)]*3+[(None,0.1)],'right':[(0.9,None)]*2+[(0.5,None)],'both':[(None,0.05)]*2+[(0.9,None)],'interval':[(0.2,0.3),(0.05,0.1),(0.4,0.5)]}
start={'normal':[.3,.3],'lognormal':[-1.5,.9],'weibull':[1.,.3],'logistic':[.3,.2],'log-logistic':[-1.5,.5],'smallest-extreme-value':[.4,.3],'largest-extreme-value':[.2,.2],'cauchy':[.2,.1]}
out={}
for name,b in cases.items():
    out[name]={}
    for f in F:
        p,v=search(f,start[f],x,b); out[name][f]=[p[0],p[1],v]
print(json.dumps({'readings':x,'bounds':cases,'fits':out}))
